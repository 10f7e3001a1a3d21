/** The levels of a track, one above the other: noise, usual peaks, hard hits, the input's limit. */
import type { Channel, Headroom } from "../../api/types";
import { dbText } from "../../core/units";
import { useStock } from "../../parts/stock";

const [WIDE, HIGH, BAR] = [296, 138, 96];
const [TOP, FOOT] = [30, -130];
const y = (dbu: number) =>
  8 + ((TOP - Math.min(Math.max(dbu, FOOT), TOP)) / (TOP - FOOT)) * (HIGH - 16);

export function Ladder({ track }: { track: Channel }) {
  const found = useStock().data?.headroom.find((h) => h.channel === track.id);
  if (!found) return null;
  return (
    <div data-headroom={found.state}>
      {found.output_dbu != null && <Rungs found={found} />}
      <p className={`text-[0.86rem] ${found.state === "overloads" ? "text-hollow" : ""}`}>
        {found.words}
      </p>
      {found.unknown.length > 0 && (
        <p className="text-[0.83rem] text-soft">
          The locker does not say {found.unknown.join(", ")}.
        </p>
      )}
    </div>
  );
}

interface Rung {
  dbu: number;
  name: string;
  heavy?: boolean;
}

function rungsOf(found: Headroom): Rung[] {
  const peak = found.output_dbu ?? 0;
  const rungs: Rung[] = [
    { dbu: peak, name: "usual peaks" },
    { dbu: peak + found.spread_db, name: "hard hits" },
  ];
  if (found.input_limit_dbu != null)
    rungs.push({ dbu: found.input_limit_dbu, name: "most it takes", heavy: true });
  if (found.noise_dbu != null) rungs.push({ dbu: found.noise_dbu, name: "noise of the input" });
  return rungs.sort((a, b) => b.dbu - a.dbu);
}

function Rungs({ found }: { found: Headroom }) {
  const rungs = rungsOf(found);
  const bad = found.state === "overloads" || found.state === "hard hits";
  const [low, high] = [found.output_dbu ?? 0, (found.output_dbu ?? 0) + found.spread_db];
  return (
    <svg width={WIDE} height={HIGH} role="img" aria-label={rungs.map(said).join(", ")}>
      <rect
        x="8"
        width="14"
        y={y(TOP)}
        height={y(FOOT) - y(TOP)}
        fill="var(--ink)"
        fillOpacity="0.08"
      />
      <rect
        x="8"
        width="14"
        y={y(high)}
        height={y(low - found.spread_db) - y(high)}
        fill={bad ? "var(--late)" : "var(--ring)"}
        fillOpacity="0.45"
      />
      {placed(rungs).map(({ rung, at }) => (
        <RungMark key={rung.name} rung={rung} at={at} />
      ))}
    </svg>
  );
}

/** Names that would meet stand one below the other. */
function placed(rungs: readonly Rung[]) {
  let last = Number.NEGATIVE_INFINITY;
  return rungs.map((rung) => {
    last = Math.max(y(rung.dbu), last + 12);
    return { rung, at: last };
  });
}

function RungMark({ rung, at }: { rung: Rung; at: number }) {
  const there = y(rung.dbu);
  return (
    <g>
      <line
        x1="8"
        x2="26"
        y1={there}
        y2={there}
        stroke="var(--ink)"
        strokeWidth={rung.heavy ? 2.4 : 1.2}
      />
      <path d={`M26 ${there}L40 ${at}`} stroke="var(--hair)" />
      <text x={BAR} y={at + 3.5} fontSize="10.5" textAnchor="end" className="num" fill="var(--ink)">
        {dbText(rung.dbu)}
      </text>
      <text x={BAR + 8} y={at + 3.5} fontSize="10.5" fill="var(--soft)">
        dBu {rung.name}
      </text>
    </g>
  );
}

const said = (r: Rung) => `${r.name} ${dbText(r.dbu)} dBu`;
