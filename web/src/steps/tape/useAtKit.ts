/** What is written down at the kit of this layout: here first, there as soon as it can be. */
import { useQuery } from "@tanstack/react-query";
import { useMemo, useRef, useState } from "react";
import { api, exactly } from "../../api/client";
import type { AtKit, KitEntry, KitLine } from "../../api/types";
import { newKey } from "../../core/key";
import { logOf, type Mine, nextAsk } from "../../core/kitlog";
import { useEditorPart } from "../../parts/editing";
import { useLog, useUnsent } from "../../parts/log";

/** How often it is looked whether somebody else wrote something down. */
const LOOK_MS = 700;

export type Order = AtKit["setup"]["order"];

export interface AtKitLog {
  log: KitEntry[];
  /** Keys of what is not there yet. */
  waiting: ReadonlySet<string>;
  lines: readonly KitLine[];
  write: (entry: Omit<KitEntry, "key">) => void;
  strike: (key: string) => void;
}

/** What counts of the log, fetched anew whenever its tag says that it has changed. */
function useLines(): readonly KitLine[] {
  const layout = useEditorPart((s) => s.out.id);
  const at = { params: { path: { pk: layout } } };
  const tag = useQuery({
    queryKey: ["at kit, tag", layout],
    queryFn: ({ signal }) =>
      exactly<{ tag: string }>(api.GET("/api/layouts/{pk}/at-kit/tag", { ...at, signal })),
    refetchInterval: LOOK_MS,
    retry: false,
  });
  const found = useQuery({
    queryKey: ["at kit", layout, tag.data?.tag],
    queryFn: ({ signal }) =>
      exactly<{ rows: KitLine[] }>(api.GET("/api/layouts/{pk}/at-kit", { ...at, signal })),
    enabled: tag.data !== undefined,
    placeholderData: (old) => old,
    staleTime: Number.POSITIVE_INFINITY,
    gcTime: 60_000,
  });
  return found.data?.rows ?? NO_LINES;
}

const NO_LINES: readonly KitLine[] = [];

/** Entries of this layout that are still on their way. */
function useOnTheWay(): KitEntry[] {
  const layout = useEditorPart((s) => s.out.id);
  const unsent = useUnsent();
  return useMemo(
    () =>
      unsent
        .filter((e) => e.kind === "kit" && e.body.layout === layout)
        .map((e) => {
          const { layout: _, ...entry } = e.body;
          return { to: null, metres: null, ...entry } as KitEntry;
        }),
    [unsent, layout],
  );
}

export function useAtKit(): AtKitLog {
  const layout = useEditorPart((s) => s.out.id);
  const lines = useLines();
  const unsent = useOnTheWay();
  const put = useLog();
  const mine = useRef<Mine>({ written: new Map(), struck: new Set() });
  const [round, turn] = useState(0);
  // biome-ignore lint/correctness/useExhaustiveDependencies: `round` says that what is mine changed
  const log = useMemo(() => logOf(lines, unsent, mine.current), [lines, unsent, round]);
  const again = () => turn((n) => n + 1);
  return {
    log,
    lines,
    waiting: useMemo(() => new Set(unsent.map((e) => e.key)), [unsent]),
    write: (fields) => {
      const entry = { ...fields, key: newKey() };
      mine.current.written.set(entry.key, entry);
      again();
      const { what, mic, to, metres, key } = entry;
      put("kit", { layout, key, what, mic, to, metres }).catch(() => {
        mine.current.written.delete(entry.key);
        again();
      });
    },
    strike: (key) => {
      mine.current.struck.add(key);
      again();
      put("kit-strike", { layout, key }).catch(() => {
        mine.current.struck.delete(key);
        again();
      });
    },
  };
}

export interface Stands {
  answer: AtKit | undefined;
  /** What was written since the answer. */
  fresh: KitEntry[];
  /** The reading to take next, by its place in the list. */
  next: number | null;
  /** Whether the answer is for the layout and the log as they are now. */
  current: boolean;
  error: Error | null;
}

/** Where everything stands by the log, and what to do next. */
export function useStands(log: KitEntry[], order: Order): Stands {
  const layout = useEditorPart((s) => s.still);
  const pk = useEditorPart((s) => s.out.id);
  const found = useQuery({
    queryKey: ["standing", pk, layout, log, order],
    queryFn: async ({ signal }) => ({
      log,
      answer: await exactly<AtKit>(
        api.POST("/api/layouts/{pk}/standing", {
          params: { path: { pk } },
          body: { layout, log, order },
          signal,
        }),
      ),
    }),
    placeholderData: (old) => old,
    gcTime: 10_000,
  });
  const { data } = found;
  const fresh = useMemo(() => {
    const known = new Set(data?.log.map((e) => e.key));
    return log.filter((e) => !known.has(e.key));
  }, [data, log]);
  return {
    answer: data?.answer,
    fresh,
    next: data ? nextAsk(data.answer.standing.asks, fresh) : null,
    current: !found.isPlaceholderData && fresh.length === 0,
    error: found.error,
  };
}
