/** Low end, attack and neighbours of one pattern over the height off the head, in decibels. */
import type { Nearness } from "../../api/types";
import { onScale, type Scale, scaleFor } from "../../core/curves";
import { lengthWithUnit, type Ruler, sumText } from "../../core/units";
import { Across, Curve, Paper, Side, Word } from "./frame";

interface Props {
  near: Nearness;
  curve: Nearness["patterns"][number];
  ruler: Ruler;
}

const WIDE = 256;
const HIGH = 118;
const LEFT = 46;
const BASE = HIGH - 16;

const LINES = [
  ["low_db", "low end", "var(--kick)", undefined],
  ["attack_db", "attack", "var(--snare)", "6 3"],
  ["neighbours_db", "neighbours", "var(--brass)", "2 3"],
] as const;

export function NearCurves({ near, curve, ruler }: Props) {
  const xs = near.heights_m.map(Math.log);
  const x: Scale = { low: xs[0] ?? 0, high: xs.at(-1) ?? 1, from: LEFT, to: WIDE - 6 };
  const y = scaleFor(
    LINES.flatMap(([key]) => curve[key]),
    12,
    BASE,
    6,
  );
  const here = onScale(xs[near.now] ?? 0, x);
  const at = { x: (v: number) => onScale(v, x), y: (v: number) => onScale(v, y) };
  const value = (key: (typeof LINES)[number][0]) => `${sumText(curve[key][near.now] ?? 0)} dB`;
  const ends = [near.heights_m[0] ?? 0, near.heights_m.at(-1) ?? 0] as const;
  return (
    <figure data-near>
      <Paper
        wide={WIDE}
        high={HIGH}
        label={`Where it is: ${LINES.map(([k, name]) => `${name} ${value(k)}`).join(", ")}`}
      >
        <Side at={[y.low, y.high]} x={LEFT - 4} y={at.y} say={(v) => `${v.toFixed(0)} dB`} />
        <Across at={[y.low]} y={() => BASE} from={LEFT} to={WIDE - 6} />
        {LINES.map(([key, name, colour, dash]) => (
          <Curve key={name} xs={xs} ys={curve[key]} {...at} colour={colour} dash={dash} />
        ))}
        <line x1={here} x2={here} y1={4} y2={BASE} stroke="var(--ink)" strokeWidth="1" />
        <Word x={LEFT} y={HIGH - 3} anchor="start">
          {lengthWithUnit(ends[0], ruler)}
        </Word>
        <Word x={WIDE - 6} y={HIGH - 3} anchor="end">
          {lengthWithUnit(ends[1], ruler)} off it
        </Word>
      </Paper>
      <ul className="flex flex-wrap gap-x-3 text-[0.78rem]">
        {LINES.map(([key, name, colour, dash]) => (
          <li key={name} className="inline-flex items-center gap-1">
            <svg width="16" height="4" aria-hidden="true">
              <line x2="16" y1="2" y2="2" stroke={colour} strokeWidth="2" strokeDasharray={dash} />
            </svg>
            {name} <span className="num">{value(key)}</span>
          </li>
        ))}
      </ul>
    </figure>
  );
}
