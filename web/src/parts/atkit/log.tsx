/** What is written down at the kit of this layout: here first, there as soon as it can be. */
import { useQuery } from "@tanstack/react-query";
import { createContext, type ReactNode, useContext, useMemo, useRef, useState } from "react";
import { api, exactly } from "../../api/client";
import type { KitEntry, KitLine, Tag } from "../../api/types";
import { newKey } from "../../core/key";
import { logOf, type Mine } from "../../core/kitlog";
import { useEditorPart } from "../editing";
import { useLast } from "../last";
import { useLog, useUnsent } from "../log";

/** How often it is looked whether somebody else wrote something down, where that is seen at once. */
const LOOK_MS = 700;
/** And where only the way to it is shown. */
const GLANCE_MS = 10_000;

export interface AtKitLog {
  log: KitEntry[];
  /** Keys of what is not there yet. */
  waiting: ReadonlySet<string>;
  lines: readonly KitLine[];
  /** Whether the lines have come at all. */
  known: boolean;
  /** What a distance meter has just sent. */
  meter: Tag["meter"];
  /** Written down; the key it has from now on. */
  write: (entry: Omit<KitEntry, "key">) => string;
  strike: (key: string) => void;
}

/** What counts of the log, fetched anew whenever its tag says that it has changed. */
function useLines(looking: boolean): Pick<AtKitLog, "lines" | "known" | "meter"> {
  const layout = useEditorPart((s) => s.out.id);
  const at = { params: { path: { pk: layout } } };
  const tag = useQuery({
    queryKey: ["at kit, tag", layout],
    queryFn: ({ signal }) =>
      exactly<Tag>(api.GET("/api/layouts/{pk}/at-kit/tag", { ...at, signal })),
    refetchInterval: looking ? LOOK_MS : GLANCE_MS,
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
  const told = useLast(found.data);
  const meter = tag.data?.meter ?? null;
  return { lines: told?.rows ?? NO_LINES, known: told !== undefined, meter };
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

const AtKitContext = createContext<AtKitLog | null>(null);

/** The log at the kit of the open layout, for every step. */
export function useAtKit(): AtKitLog {
  const kit = useContext(AtKitContext);
  if (!kit) throw new Error("useAtKit is for the steps of an open layout");
  return kit;
}

/** `looking`: what others write is seen at once. */
export function AtKitProvider(props: { looking: boolean; children: ReactNode }) {
  return <AtKitContext value={useNewLog(props.looking)}>{props.children}</AtKitContext>;
}

function useNewLog(looking: boolean): AtKitLog {
  const layout = useEditorPart((s) => s.out.id);
  const { lines, known, meter } = useLines(looking);
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
    known,
    meter,
    waiting: useMemo(() => new Set(unsent.map((e) => e.key)), [unsent]),
    write: (fields) => {
      const entry = { ...fields, key: newKey() };
      mine.current.written.set(entry.key, entry);
      again();
      const { key } = entry;
      put("kit", { layout, ...entry }).catch(() => {
        mine.current.written.delete(entry.key);
        again();
      });
      return key;
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
