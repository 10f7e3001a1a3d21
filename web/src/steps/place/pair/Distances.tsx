/** How far the two mics are from one drum by tape, biggest numbers first. */
import type { Mic, PairRow } from "../../../api/types";
import { lengthText, lengthWithUnit, msText, type Ruler, unitMark } from "../../../core/units";
import { VerdictWord } from "../../../parts/Mark";
import { useMe } from "../../../parts/me";

/** Nearer than this no tape can tell: the half millimetre that is not shown. */
export const NOTHING_M = 0.0005;

export function Distances(props: { name: string; colour: string; row: PairRow; mics: [Mic, Mic] }) {
  const { name, colour, row, mics } = props;
  const ruler: Ruler = useMe();
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
