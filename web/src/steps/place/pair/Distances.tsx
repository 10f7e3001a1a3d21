/** How far the two mics are from one drum by tape, biggest numbers first. */
import type { Mic } from "../../../api/types";
import { lengthText, lengthWithUnit, msText, type Ruler, unitMark } from "../../../core/units";
import { firstDrum } from "../../../core/words";
import { useEditorPart } from "../../../parts/editing";
import { VerdictWord } from "../../../parts/Mark";
import { useMe } from "../../../parts/me";

/** Nearer than this no tape can tell: the half millimetre that is not shown. */
export const NOTHING_M = 0.0005;

interface Props {
  name: string;
  kind: "snare" | "kick";
  colour: string;
  mics: [Mic, Mic];
}

/** These follow the hand with every answer. */
export function Distances({ name, kind, colour, mics }: Props) {
  const drum = useEditorPart((s) => firstDrum(s.still, kind).id);
  const row = useEditorPart((s) => s.board?.focus?.rows.find((r) => r.source === drum));
  const ruler: Ruler = useMe();
  if (!row) return null;
  const off = row.tape_difference_m;
  const far = off > 0 ? mics[1].id : mics[0].id;
  const key = name.toLowerCase();
  return (
    <section className={`border-l-4 ${colour} pl-3`} aria-label={`Distances to the ${key}`}>
      <h3 className="text-[0.85rem] font-normal text-soft">
        {name}
        {unitMark(ruler)}
      </h3>
      <p
        className={`num flex gap-5 font-bold ${ruler.units === "cm" ? "text-[1.65rem]" : "text-[1.25rem]"} leading-tight`}
      >
        <span data-tape={`${key}-a`}>{lengthText(row.tape_a_m, ruler)}</span>
        <span data-tape={`${key}-b`}>{lengthText(row.tape_b_m, ruler)}</span>
      </p>
      <p className="text-[0.87rem]" data-off={key}>
        {Math.abs(off) < NOTHING_M
          ? "equal by tape"
          : `${far} ${lengthWithUnit(Math.abs(off), ruler)} further, ${msText(Math.abs(row.delay_s))} ms`}
      </p>
      <p className="text-[0.87rem]" data-verdict-of={key}>
        <VerdictWord verdict={row.verdict} />
      </p>
    </section>
  );
}
