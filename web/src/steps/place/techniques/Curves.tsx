/** Levels, equalities and verdicts over one number: three small drawings on one axis. */
import type { Sweep } from "../../../api/types";
import { onScale, polyline, type Scale, scaleFor } from "../../../core/curves";
import { numberText } from "../../../core/techniques";
import { lengthWithUnit, type Ruler } from "../../../core/units";

const WIDE = 276;
const HIGH = 104;
const LEFT = 40;
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

export function Curves({ sweep, at, ruler }: Props) {
  const level: Line[] = [
    { name: "kick", colour: "var(--kick)", values: sweep.levels_db.kick ?? [] },
    { name: "snare", colour: "var(--snare)", values: sweep.levels_db.snare ?? [] },
    { name: "toms", colour: "var(--tom)", dash: "6 3", values: sweep.levels_db.toms ?? [] },
    { name: "cymbals", colour: "var(--brass)", dash: "2 3", values: sweep.levels_db.cymbals ?? [] },
    ...(sweep.room_db
      ? [{ name: "room", colour: "var(--room)", dash: "8 3 2 3", values: sweep.room_db }]
      : []),
  ];
  const equal: Line[] = sweep.equal.map((e, i) => ({
    name: `${e.a}, ${e.b} on ${e.on}`,
    colour: e.on.includes("kick") ? "var(--kick)" : "var(--snare)",
    dash: i % 2 ? "6 3" : undefined,
    values: e.difference_m,
  }));
  const verdicts: Line[] = (["hollow", "late", "together"] as const).map((name) => ({
    name,
    colour: `var(--${name === "together" ? "ring" : name})`,
    dash: name === "late" ? "6 3" : name === "together" ? "2 3" : undefined,
    values: sweep.verdicts.map((v) => v[name] ?? 0),
  }));
  return (
    <div className="flex w-full flex-wrap gap-x-4">
      <Small
        {...{ sweep, at, ruler }}
        title="Levels it hears"
        lines={level}
        least={12}
        say={(v) => `${v.toFixed(0)} dB`}
      />
      {equal.length > 0 && (
        <Small
          {...{ sweep, at, ruler }}
          title="Apart in distance"
          lines={equal}
          least={0.02}
          floor={0}
          say={(v) => lengthWithUnit(v, ruler)}
        />
      )}
      <Small
        {...{ sweep, at, ruler }}
        title="Its pairs"
        lines={verdicts}
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

function Small({ sweep, at, ruler, title, lines, least, floor, say }: SmallProps) {
  const xs = sweep.values;
  const x: Scale = { low: xs[0] ?? 0, high: xs.at(-1) ?? 1, from: LEFT, to: WIDE - 6 };
  const every = lines.flatMap((l) => l.values.filter((v): v is number => v !== null));
  const free = scaleFor(every, least, HIGH - FOOT, 6);
  const y = floor === undefined ? free : { ...free, low: floor };
  const here = onScale(xs[at] ?? 0, x);
  const best = onScale(xs[sweep.best] ?? 0, x);
  const said = lines
    .map((l) => `${l.name} ${l.values[at] == null ? "none" : say(l.values[at] as number)}`)
    .join(", ");
  return (
    <figure className="min-w-0">
      <figcaption className="text-[0.8rem]">
        <strong>{title}</strong>
      </figcaption>
      <svg width={WIDE} height={HIGH} role="img" aria-label={`${title}: ${said}`}>
        {sweep.blocked.map((words, i) =>
          words ? (
            <rect
              key={xs[i]}
              x={onScale(xs[i] ?? 0, x) - 2}
              y={6}
              width={4}
              height={HIGH - FOOT - 6}
              fill="var(--hollow)"
              opacity="0.13"
            />
          ) : null,
        )}
        {[y.low, y.high].map((v) => (
          <text
            key={v}
            x={LEFT - 4}
            y={onScale(v, y) + (v === y.high ? 8 : 0)}
            textAnchor="end"
            fontSize="9.5"
            className="num"
            fill="var(--soft)"
          >
            {say(v)}
          </text>
        ))}
        <line x1={LEFT} x2={WIDE - 6} y1={HIGH - FOOT} y2={HIGH - FOOT} stroke="var(--hair)" />
        {lines.map((l) => (
          <polyline
            key={l.name}
            points={polyline(xs, l.values, x, y)}
            fill="none"
            stroke={l.colour}
            strokeWidth="1.7"
            strokeDasharray={l.dash}
          />
        ))}
        <path d={`M${best} ${HIGH - FOOT}l4 6h-8Z`} fill="var(--ring)" data-best />
        <line x1={here} x2={here} y1={4} y2={HIGH - FOOT} stroke="var(--ink)" strokeWidth="1" />
        <text x={LEFT} y={HIGH - 3} fontSize="9.5" className="num" fill="var(--soft)">
          {numberText(xs[0] ?? 0, sweep, ruler)}
        </text>
        <text
          x={WIDE - 6}
          y={HIGH - 3}
          fontSize="9.5"
          textAnchor="end"
          className="num"
          fill="var(--soft)"
        >
          {numberText(xs.at(-1) ?? 0, sweep, ruler)}
        </text>
      </svg>
      <ul className="flex max-w-[276px] flex-wrap gap-x-3 text-[0.78rem]">
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
            {l.name}{" "}
            <span className="num">{l.values[at] == null ? "" : say(l.values[at] as number)}</span>
          </li>
        ))}
      </ul>
    </figure>
  );
}
