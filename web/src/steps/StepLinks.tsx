/** The steps of the work as links, each with how far it has come: computed, not ticked by hand. */
import { NavLink } from "react-router";
import type { Counts, Layout, Verdict } from "../api/types";
import { useEditorPart } from "../parts/editing";
import { Mark } from "../parts/Mark";
import { useListLength } from "../parts/worklist";

type Shown = Parameters<typeof Mark>[0]["verdict"];

interface StepRow {
  to: string;
  name: string;
  mark: Shown;
  /** How far it has come, in words. */
  say: string;
}

export const LABEL = "Steps of the work";

export function StepLinks({ look }: { look: (to: string, isActive: boolean) => string }) {
  const { rows, first, pairs } = useSteps();
  return rows.map(({ to, name, mark, say }) => (
    <NavLink key={to} to={to} className={({ isActive }) => look(to, isActive)}>
      <Mark verdict={mark} />
      {name}
      <span className="sr-only">, {say}</span>
      {to === first && <Note>start</Note>}
      {to === "pairs" && pairs && <ListLength />}
    </NavLink>
  ));
}

function useSteps() {
  const mics = useEditorPart((s) => s.doc.mics.length > 0);
  const brief = useEditorPart((s) => Boolean(s.still.brief));
  const room = useEditorPart((s) => Boolean(s.still.room));
  const [kit, kitSays] = KIT[useEditorPart((s) => kitState(s.still))];
  const pairs = useEditorPart((s) => s.still.mics.length > 1);
  const worst = useEditorPart((s) => worstOf(s.board?.counts));
  const wants = pairs ? worst : "no matter";
  const first = mics ? null : brief ? "place" : "brief";
  const patched = PATCHED[useEditorPart((s) => s.board?.patched) ?? "loose"];
  const done = (is: boolean): Shown => (is ? "together" : "no matter");
  const row = (to: string, mark: Shown, say: string): StepRow => ({
    to,
    name: NAMES[to] ?? to,
    mark,
    say,
  });
  const rows = [
    row("brief", done(brief), brief ? "answered" : "not answered yet"),
    row("room", done(room), room ? "drawn" : "not drawn"),
    row("kit", kit, kitSays),
    row("place", done(mics), mics ? "mics placed" : "no mics yet"),
    row("patch", patched[0], patched[1]),
    row("pairs", wants, PAIRS[wants] ?? "wants attention"),
    row("sheet", "no matter", "to print"),
    row(AT_THE_KIT, "no matter", "at the kit"),
    row("hits", "no matter", "recorded at the kit"),
    row("log", "no matter", "what was tried, and what it did"),
  ];
  return { rows, first, pairs };
}

/** What each step is called. */
export const NAMES: Record<string, string> = {
  brief: "Brief",
  room: "Room",
  kit: "Kit",
  place: "Place",
  patch: "Patch",
  pairs: "Pairs",
  sheet: "Sheet",
  tape: "Tape",
  hits: "Hits",
  log: "Log",
};

/** How many lines there are to do, when that is known. */
function ListLength() {
  const lines = useListLength();
  // Its line is there before it is known, so that the steps below do not move from under a hand.
  if (lines === undefined) return <Note>{NOTHING}</Note>;
  return <Note lines={lines}>{lines ? `${lines} to do` : "done"}</Note>;
}

const NOTHING = "\u00a0";

/** A word under the name of a step. */
function Note({ children, lines }: { children: string; lines?: number }) {
  return (
    <span className="num -mt-1 text-[0.72rem] text-soft" data-to-do={lines}>
      {children}
    </span>
  );
}

const PAIRS: Partial<Record<Verdict, string>> = {
  "no matter": "no pair of mics yet",
  together: "nothing hollow or late",
};

/** Where the plan ends, and work at the kit begins. */
export const AT_THE_KIT = "tape";

const KIT = {
  drawn: ["no matter", "as drawn, not measured"],
  measured: ["together", "its tape readings hold"],
  unsure: ["late", "moved since it was measured"],
} as const;

const PATCHED = {
  loose: ["no matter", "not plugged in"],
  twice: ["late", "an input is taken twice"],
  done: ["together", "every track has its input"],
} as const;

/** Whether the kit was measured, and whether that still holds. */
function kitState(doc: Layout): keyof typeof KIT {
  const readings = doc.kit.readings ?? [];
  if (!readings.length) return "drawn";
  return readings.every((r) => r.sure) ? "measured" : "unsure";
}

/** What the Pairs step asks for: the gravest verdict there is. */
function worstOf(counts: Counts | undefined): Verdict {
  if (!counts) return "no matter";
  return counts.hollow ? "hollow" : counts.late ? "late" : "together";
}
