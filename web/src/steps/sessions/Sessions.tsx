/** The sessions of one's studios: a drawing and the verdicts of each layout. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, must } from "../../api/client";
import type { SessionOut } from "../../api/types";
import { AccountMenu } from "../../parts/AccountMenu";
import { Brand } from "../../parts/Brand";
import { useMe } from "../../parts/me";
import { useToast } from "../../parts/toast";
import { NewSession } from "./NewSession";
import { OneSession } from "./OneSession";
import { Rename } from "./Rename";
import { Upload } from "./Upload";

const path = (pk: number) => ({ params: { path: { pk } } });

/** The list, and what can be done with one of it. */
function useSessions() {
  const queries = useQueryClient();
  const say = useToast();
  const again = () => queries.invalidateQueries({ queryKey: ["sessions"] });
  const list = useQuery({ queryKey: ["sessions"], queryFn: () => must(api.GET("/api/sessions")) });
  const copy = useMutation({
    mutationFn: (pk: number) => must(api.POST("/api/sessions/{pk}/copy", path(pk))),
    onSuccess: again,
    onError: (e) => say(e.message),
  });
  const restore = useMutation({
    mutationFn: (pk: number) => must(api.POST("/api/sessions/{pk}/restore", path(pk))),
    onSuccess: again,
    onError: (e) => say(e.message),
  });
  const remove = useMutation({
    mutationFn: (s: SessionOut) => must(api.DELETE("/api/sessions/{pk}", path(s.id))),
    onSuccess: (_, s) => {
      void again();
      say(`${s.name} is deleted`, { label: "Undo", run: () => restore.mutate(s.id) });
    },
    onError: (e) => say(e.message),
  });
  return { list, copy, remove, again };
}

export function Sessions() {
  const { list, copy, remove, again } = useSessions();
  const [making, setMaking] = useState(false);
  const [renaming, setRenaming] = useState<SessionOut | null>(null);
  return (
    <div className="min-h-screen">
      <header className="flex items-center justify-between border-b border-hair bg-panel px-5 py-2.5">
        <Brand />
        <AccountMenu />
      </header>
      <main className="mx-auto max-w-6xl p-6">
        <Top onDone={again} onNew={() => setMaking(true)} />
        {list.error && <p role="alert">{list.error.message}</p>}
        {list.data?.length === 0 && (
          <p className="rounded-card border border-hair bg-panel p-6">
            No sessions yet. A new session begins with a kit and a layout to change; a layout file
            made elsewhere can be read in as well.
          </p>
        )}
        <ul className="space-y-5">
          {list.data?.map((s) => (
            <OneSession
              key={s.id}
              session={s}
              onRename={() => setRenaming(s)}
              onCopy={() => copy.mutate(s.id)}
              onDelete={() => remove.mutate(s)}
            />
          ))}
        </ul>
      </main>
      <NewSession open={making} onClose={() => setMaking(false)} />
      {renaming && <Rename session={renaming} onClose={() => setRenaming(null)} onDone={again} />}
    </div>
  );
}

function Top({ onDone, onNew }: { onDone: () => void; onNew: () => void }) {
  const me = useMe();
  return (
    <div className="mb-5 flex flex-wrap items-center gap-3">
      <h1 className="mr-auto text-2xl">Sessions</h1>
      {me.studios.map((s) => (
        <Link key={s.id} className="btn" to={`/studios/${s.id}/locker`}>
          {me.studios.length > 1 ? `Locker of ${s.name}` : "Locker"}
        </Link>
      ))}
      <Upload onDone={onDone} />
      <button type="button" className="btn-main py-2" onClick={onNew}>
        New session
      </button>
    </div>
  );
}
