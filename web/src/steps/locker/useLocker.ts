/** The locker of a studio as it is kept, and every change saved as it is made. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, exactly } from "../../api/client";
import type { Locker, LockerOut } from "../../api/types";
import { useToast } from "../../parts/toast";
import { type Kind, newRow, type Row, rowsOf } from "./rows";

interface Chosen {
  kind: Kind;
  id: string;
}

/** Saving a whole locker over the version it was read in. */
function useSave(studio: number, version: number) {
  const queries = useQueryClient();
  const say = useToast();
  const send = (body: LockerOut) =>
    exactly<LockerOut>(
      api.PUT("/api/studios/{pk}/locker", { params: { path: { pk: studio } }, body }),
    );
  const hold = (fresh: LockerOut) => queries.setQueryData(["locker", studio], fresh);
  const save = useMutation({
    mutationFn: (locker: Locker) => send({ version, locker }),
    onSuccess: hold,
    onError: (e) => {
      say(e.message);
      void queries.invalidateQueries({ queryKey: ["locker", studio] });
    },
  });
  /** Back to an older locker, over the version that came of taking something out. */
  const back = (over: number, locker: Locker) =>
    void send({ version: over, locker })
      .then(hold)
      .catch((e: Error) => say(e.message));
  return { save, back };
}

export function useLocker(studio: number, held: LockerOut) {
  const say = useToast();
  const { locker } = held;
  const [chosen, choose] = useState<Chosen | null>(null);
  const { save, back } = useSave(studio, held.version);
  const withRows = (kind: Kind, rows: Row[]) => ({ ...locker, [kind]: rows }) as Locker;
  const add = (kind: Kind) => {
    const row = newRow(kind, locker);
    save.mutate(withRows(kind, [...rowsOf(locker, kind), row]));
    choose({ kind, id: row.id });
  };
  const put = (kind: Kind, was: string, next: Row) => {
    save.mutate(
      withRows(
        kind,
        rowsOf(locker, kind).map((r) => (r.id === was ? next : r)),
      ),
    );
    choose({ kind, id: next.id });
  };
  const takeOut = (kind: Kind, gone: Row) => {
    const left = withRows(
      kind,
      rowsOf(locker, kind).filter((r) => r.id !== gone.id),
    );
    save.mutate(left, {
      onSuccess: (fresh) =>
        say(`${gone.name} is taken out`, {
          label: "Undo",
          run: () => back(fresh.version, locker),
        }),
    });
    choose(null);
  };
  return { locker, save, chosen, choose, add, put, takeOut };
}
