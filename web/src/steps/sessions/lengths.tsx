/** How long the list to do is for each layout on the page: kept ones at once, the others a few at a time. */
import { useQuery } from "@tanstack/react-query";
import { createContext, type ReactNode, useContext, useEffect, useMemo, useState } from "react";
import { api, must } from "../../api/client";
import type { LayoutRow, SessionOut } from "../../api/types";

/** Lists asked for at once. */
const A_FEW = 12;

type Lengths = ReadonlyMap<string, number | null>;
const LengthsContext = createContext<Lengths>(new Map());

/** A layout as it was last changed: a later change is another question. */
const keyOf = (l: LayoutRow) => `${l.id} ${l.changed_at}`;

export function LengthsProvider({ rows, children }: { rows: SessionOut[]; children: ReactNode }) {
  const [known, setKnown] = useState<Lengths>(new Map());
  const wanted = useMemo(
    () =>
      rows
        .flatMap((s) => s.layouts)
        .filter((l) => l.summary && l.lines === null && !known.has(keyOf(l)))
        .slice(0, A_FEW),
    [rows, known],
  );
  const { data, error } = useQuery({
    queryKey: ["lengths", ...wanted.map(keyOf)],
    queryFn: () =>
      must(api.POST("/api/sessions/lines", { body: { layouts: wanted.map((l) => l.id) } })),
    enabled: wanted.length > 0,
    retry: false,
  });
  useEffect(() => {
    if (!wanted.length || !(data || error)) return;
    // What has no answer is not asked again: a card without a number is no harm.
    const found = new Map(data?.map((d) => [d.id, d.lines]));
    const told = wanted.map((l) => [keyOf(l), found.get(l.id) ?? null] as const);
    setKnown((old) => new Map([...old, ...told]));
  }, [data, error, wanted]);
  return <LengthsContext value={known}>{children}</LengthsContext>;
}

export function useLength(layout: LayoutRow): number | null {
  const known = useContext(LengthsContext);
  return layout.lines ?? known.get(keyOf(layout)) ?? null;
}
