/** How loud it gets at a mic, and whether it and its input take that: with which of its pads. */
import { Link } from "react-router";
import type { Headroom, Mic } from "../../../api/types";
import { dbText } from "../../../core/units";
import { Foot, Paper } from "../../../parts/curves/frame";
import { useEditorPart } from "../../../parts/editing";
import { useStock } from "../../../parts/stock";

export function HowLoud({ mic }: { mic: Mic }) {
  const found = useStock().data?.headroom.find((h) => h.mic === mic.id);
  const studio = useEditorPart((s) => s.out.studio_id);
  if (!mic.model || !found) return null;
  return (
    <section aria-label="Headroom" data-headroom={found.state}>
      <h3 className="mb-1 font-text text-[0.92rem] font-bold">Headroom</h3>
      <LevelTape found={found} />
      <p
        className={`text-[0.88rem] ${found.state === "overloads" ? "text-hollow" : ""}`}
        role={found.state === "overloads" ? "alert" : undefined}
      >
        {found.words}
      </p>
      <Leaves found={found} />
      {found.unknown.length > 0 && (
        <p className="text-[0.85rem] text-soft">
          The locker does not say {found.unknown.join(", ")}.{" "}
          <Link to={`/studios/${studio}/locker`} className="underline">
            Add it
          </Link>
        </p>
      )}
      <p className="text-[0.78rem] text-soft">
        For a usual stroke, from memory; nine in ten lie within {found.spread_db} dB. Ears are
        overloaded long before: wear protection near a kit that is played.
      </p>
    </section>
  );
}

function Leaves({ found }: { found: Headroom }) {
  if (found.output_dbu == null) return null;
  return (
    <p className="text-[0.85rem] text-soft">
      Gives <span className="num">{dbText(found.output_dbu)}</span> dBu
      {found.input && ` into ${found.input}`}
      {found.input_limit_dbu != null && (
        <>
          , which takes <span className="num">{dbText(found.input_limit_dbu)}</span> dBu
        </>
      )}
      .
    </p>
  );
}

const [WIDE, HIGH, LEFT, TOP, THICK] = [256, 46, 16, 16, 12];
const [SOFTEST, LOUDEST] = [90, 160];
const MARKS = [90, 110, 130, 150];
const at = (db: number) =>
  LEFT +
  ((Math.min(Math.max(db, SOFTEST), LOUDEST) - SOFTEST) / (LOUDEST - SOFTEST)) * (WIDE - 2 * LEFT);

/** A tape of loudness: where peaks lie, the mic's limit, and where its pad would put that. */
function LevelTape({ found }: { found: Headroom }) {
  const { peak_db, spread_db, limit_db, pad_db, state } = found;
  const colour =
    state === "fits" ? "var(--ring)" : state === "unknown" ? "var(--soft)" : "var(--late)";
  const bar = { y: TOP, height: THICK };
  return (
    <Paper wide={WIDE} high={HIGH}>
      <rect x={LEFT} width={WIDE - 2 * LEFT} {...bar} fill="var(--hair)" fillOpacity="0.5" />
      <rect
        x={at(peak_db - spread_db)}
        width={at(peak_db + spread_db) - at(peak_db - spread_db)}
        {...bar}
        fill={colour}
        fillOpacity="0.35"
      />
      <line
        x1={at(peak_db)}
        x2={at(peak_db)}
        y1={TOP}
        y2={TOP + THICK}
        stroke={colour}
        strokeWidth="3"
      />
      {limit_db != null && <Limit db={limit_db} said="limit" />}
      {limit_db != null && pad_db != null && <Limit db={limit_db + pad_db} said="padded" dashed />}
      <Foot at={MARKS} x={at} y={HIGH - 4} say={(v, i) => (i ? String(v) : `${v} dB`)} />
    </Paper>
  );
}

function Limit({ db, said, dashed }: { db: number; said: string; dashed?: boolean }) {
  return (
    <g>
      <line
        x1={at(db)}
        x2={at(db)}
        y1={TOP - 4}
        y2={TOP + THICK + 3}
        stroke="var(--ink)"
        strokeWidth="1.6"
        strokeDasharray={dashed ? "3 2" : undefined}
      />
      <text
        x={at(db) + (dashed ? -2 : 2)}
        y={TOP - 6}
        fontSize="9.5"
        textAnchor={dashed ? "start" : "end"}
        fill="var(--soft)"
      >
        {said}
      </text>
    </g>
  );
}
