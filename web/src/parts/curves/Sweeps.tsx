/** Levels, equalities and verdicts over one number: three small drawings on one axis. */
import type { Sweep } from "../../api/types";
import { onScale, type Scale, scaleFor } from "../../core/curves";
import { numberText } from "../../core/techniques";
import { lengthWithUnit, type Ruler } from "../../core/units";
import { Across, Curve, Paper, Side, Word } from "./frame";

const WIDE = 276;
const HIGH = 104;
const LEFT = 46;
const FOOT = 16;

interface Line {
  name: string;
  colour: string;
  dash?: string;
  values: (number | null)[];
}

interface Props {
  sweep: Sweep;
  at: number;
  ruler: Ruler;
}

/** What the technique's mics hear of the kit, and of the room. */
function levelLines(sweep: Sweep): Line[] {
  const level = sweep.levels_db;
  const room = sweep.room_db;
  const more: Line[] = room
    ? [{ name: "room", colour: "var(--room)", dash: "8 3 2 3", values: room }]
    : [];
  return [
    { name: "kick", colour: "var(--kick)", values: level.kick ?? [] },
    { name: "snare", colour: "var(--snare)", values: level.snare ?? [] },
    { name: "toms", colour: "var(--tom)", dash: "6 3", values: level.toms ?? [] },
    { name: "cymbals", colour: "var(--brass)", dash: "2 3", values: level.cymbals ?? [] },
    ...more,
  ];
}

function equalLines(sweep: Sweep): Line[] {
  return sweep.equal.map((e, i) => ({
    name: `${e.a}, ${e.b} on ${e.on}`,
    colour: e.on.includes("kick") ? "var(--kick)" : "var(--snare)",
    dash: i % 2 ? "6 3" : undefined,
    values: e.difference_m,
  }));
}

const VERDICTS = [
  ["hollow", "var(--hollow)", undefined],
  ["late", "var(--late)", "6 3"],
  ["together", "var(--ring)", "2 3"],
] as const;

function verdictLines(sweep: Sweep): Line[] {
  return VERDICTS.map(([name, colour, dash]) => {
    const values = sweep.verdicts.map((v) => v[name] ?? 0);
    return { name, colour, dash, values };
  });
}

export function Sweeps(props: Props) {
  const { sweep, ruler } = props;
  const equal = equalLines(sweep);
  return (
    <div className="flex w-full flex-wrap gap-x-4">
      <Small
        {...props}
        title="Levels it hears"
        lines={levelLines(sweep)}
        least={12}
        say={(v) => `${v.toFixed(0)} dB`}
      />
      {sweep.low_db.some((v) => v !== null) && (
        <Small
          {...props}
          title="Low end against attack"
          lines={[{ name: "its drum", colour: "var(--tom)", values: sweep.low_db }]}
          least={6}
          say={(v) => `${v.toFixed(1)} dB`}
        />
      )}
      {equal.length > 0 && (
        <Small
          {...props}
          title="Apart in distance"
          lines={equal}
          least={0.02}
          floor={0}
          say={(v) => lengthWithUnit(v, ruler)}
        />
      )}
      <Small
        {...props}
        title="Its pairs"
        lines={verdictLines(sweep)}
        least={4}
        floor={0}
        say={(v) => v.toFixed(0)}
      />
    </div>
  );
}

interface SmallProps extends Props {
  title: string;
  lines: Line[];
  least: number;
  /** A value the axis starts at and never goes below: for counts and distances. */
  floor?: number;
  say: (v: number) => string;
}

const BASE = HIGH - FOOT;

/** Where the number and what follows from it stand on the paper. */
function scalesOf({ sweep, lines, least, floor }: SmallProps) {
  const xs = sweep.values;
  const x: Scale = { low: xs[0] ?? 0, high: xs.at(-1) ?? 1, from: LEFT, to: WIDE - 6 };
  const every = lines.flatMap((l) => l.values.filter((v): v is number => v !== null));
  const free = scaleFor(every, least, BASE, 6);
  const y = floor === undefined ? free : { ...free, low: floor };
  return {
    ends: [x.low, x.high],
    levels: [y.low, y.high],
    x: (v: number) => onScale(v, x),
    y: (v: number) => onScale(v, y),
  };
}

function Small(props: SmallProps) {
  const { sweep, at, ruler, title, lines, say } = props;
  const { x, y, ends, levels } = scalesOf(props);
  const xs = sweep.values;
  const best = x(xs[sweep.best] ?? 0);
  const here = x(xs[at] ?? 0);
  const value = (l: Line) => (l.values[at] == null ? "" : say(l.values[at] as number));
  const said = lines.map((l) => `${l.name} ${value(l) || "none"}`).join(", ");
  return (
    <figure className="min-w-0 shrink-0" style={{ width: WIDE }}>
      <figcaption className="text-[0.8rem]">
        <strong>{title}</strong>
      </figcaption>
      <Paper wide={WIDE} high={HIGH} label={`${title}: ${said}`}>
        <Blocked sweep={sweep} x={x} />
        <Side at={levels} x={LEFT - 4} y={y} say={say} />
        <Across at={levels.slice(0, 1)} y={() => BASE} from={LEFT} to={WIDE - 6} />
        {lines.map((l) => (
          <Curve key={l.name} xs={xs} ys={l.values} {...{ x, y }} colour={l.colour} dash={l.dash} />
        ))}
        <path d={`M${best} ${BASE}l4 6h-8Z`} fill="var(--ring)" data-best />
        <line x1={here} x2={here} y1={4} y2={BASE} stroke="var(--ink)" strokeWidth="1" />
        <Word x={LEFT} y={HIGH - 3} anchor="start">
          {numberText(ends[0] ?? 0, sweep, ruler)}
        </Word>
        <Word x={WIDE - 6} y={HIGH - 3} anchor="end">
          {numberText(ends[1] ?? 0, sweep, ruler)}
        </Word>
      </Paper>
      <Legend lines={lines} value={value} />
    </figure>
  );
}

/** Where the number cannot be: something is in the way. */
function Blocked({ sweep, x }: { sweep: Sweep; x: (v: number) => number }) {
  return sweep.values.map(
    (v, i) =>
      sweep.blocked[i] && (
        <rect
          key={v}
          x={x(v) - 2}
          y={6}
          width={4}
          height={BASE - 6}
          fill="var(--hollow)"
          opacity="0.13"
        />
      ),
  );
}

function Legend({ lines, value }: { lines: Line[]; value: (l: Line) => string }) {
  return (
    <ul className="flex flex-wrap gap-x-3 text-[0.78rem]">
      {lines.map((l) => (
        <li key={l.name} className="inline-flex items-center gap-1">
          <svg width="16" height="4" aria-hidden="true">
            <line
              x2="16"
              y1="2"
              y2="2"
              stroke={l.colour}
              strokeWidth="2"
              strokeDasharray={l.dash}
            />
          </svg>
          {l.name} <span className="num">{value(l)}</span>
        </li>
      ))}
    </ul>
  );
}
