/** How far the two mics are from one drum by tape, biggest numbers first. */
import { useMemo } from "react";
import type { Mic } from "../../../api/types";
import type { EditorState } from "../../../core/editor";
import { lengthText, lengthWithUnit, msText, type Ruler, unitMark } from "../../../core/units";
import { firstDrum } from "../../../core/words";
import { useEditorPart } from "../../../parts/editing";
import { Live } from "../../../parts/Live";
import { VerdictWord } from "../../../parts/Mark";
import { useMe } from "../../../parts/me";

/** Nearer than this no tape can tell: the half millimetre that is not shown. */
export const NOTHING_M = 0.0005;
/** Letters of a mic's short name beside which all that is said of it fits a line. */
const SHORT = 6;

interface Props {
  name: string;
  kind: "snare" | "kick";
  colour: string;
  mics: [Mic, Mic];
}

/**
 * Where they surely fit a line each, their boxes keep their size whatever is written in them: the
 * panel round them is then not laid out anew for every number.
 */
function linesOf(ruler: Ruler, mics: [Mic, Mic]): { tapes: string; off: string } {
  const fit = ruler.units !== "hand" && mics.every((m) => m.id.length <= SHORT);
  if (!fit) return { tapes: "", off: "" };
  const still = "[contain:layout_size]";
  return { tapes: `${still} h-[1.25em]`, off: `${still} h-[1.5em] whitespace-nowrap` };
}

/** What the open pair says of a drum. */
const rowOf = (state: EditorState, kind: Props["kind"]) => {
  const drum = firstDrum(state.still, kind).id;
  return state.board?.focus?.rows.find((r) => r.source === drum);
};

/** What follows the hand with every answer, in words. */
function useSaid({ kind, mics }: Props) {
  const ruler: Ruler = useMe();
  const [a, b] = [mics[0].id, mics[1].id];
  return useMemo(() => {
    const length = (m: number | undefined) => (m === undefined ? "" : lengthText(m, ruler));
    return {
      a: (state: EditorState) => length(rowOf(state, kind)?.tape_a_m),
      b: (state: EditorState) => length(rowOf(state, kind)?.tape_b_m),
      off: (state: EditorState) => {
        const row = rowOf(state, kind);
        const off = row?.tape_difference_m ?? 0;
        if (Math.abs(off) < NOTHING_M) return "equal by tape";
        const by = lengthWithUnit(Math.abs(off), ruler);
        return `${off > 0 ? b : a} ${by} further, ${msText(Math.abs(row?.delay_s ?? 0))} ms`;
      },
    };
  }, [kind, ruler, a, b]);
}

export function Distances(props: Props) {
  const { name, kind, colour, mics } = props;
  const verdict = useEditorPart((s) => rowOf(s, kind)?.verdict);
  const ruler: Ruler = useMe();
  const said = useSaid(props);
  if (!verdict) return null;
  const key = name.toLowerCase();
  const lines = linesOf(ruler, mics);
  return (
    <section className={`border-l-4 ${colour} pl-3`} aria-label={`Distances to the ${key}`}>
      <h3 className="text-[0.85rem] font-normal text-soft">
        {name}
        {unitMark(ruler)}
      </h3>
      <p
        className={`num flex gap-5 font-bold ${ruler.units === "cm" ? "text-[1.65rem]" : "text-[1.25rem]"} leading-tight ${lines.tapes}`}
      >
        <Live data-tape={`${key}-a`} say={said.a} />
        <Live data-tape={`${key}-b`} say={said.b} />
      </p>
      <p className={`text-[0.87rem] ${lines.off}`}>
        <Live data-off={key} say={said.off} />
      </p>
      <p className="text-[0.87rem]" data-verdict-of={key}>
        <VerdictWord verdict={verdict} />
      </p>
    </section>
  );
}
