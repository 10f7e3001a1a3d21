/** The arc of a side mic: where on it a stand fits, and what the floor tom gains along it. */
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, exactly } from "../../api/client";
import type { Arc, Layout } from "../../api/types";
import { techniqueOf } from "../../core/edits";
import { boxOf, sketchOf } from "../../core/sketch";
import { dbText, lengthWithUnit, type Ruler } from "../../core/units";
import { Ask } from "../../parts/Ask";
import { Sketch } from "../../parts/chart/Sketch";
import { useEditorPart } from "../../parts/editing";
import { Slide } from "../../parts/fields/Slide";
import { useChangeMic } from "../../parts/hands";
import { useMe } from "../../parts/me";

const ABOUT =
  "Every spot is as far from the snare and as high: swing the cable, keep it taut, and look where a stand fits.";

/** Which of two mics is the one at the side: the other hangs straight over the snare. */
function hasArc(doc: Layout, mic: string): boolean {
  const taken = techniqueOf(doc, mic);
  return taken?.technique === "over-and-side" && taken.mics[1] === mic;
}

export function ArcHelp({ mic }: { mic: string }) {
  const doc = useEditorPart((s) => s.still);
  const [open, setOpen] = useState(false);
  if (!hasArc(doc, mic)) return null;
  return (
    <>
      <button
        type="button"
        className="self-start text-[0.88rem] font-semibold underline pointer-coarse:min-h-10"
        onClick={() => setOpen(true)}
      >
        The arc of {mic}
      </button>
      <Ask open={open} onClose={() => setOpen(false)} title={`The arc of ${mic}`} about={ABOUT}>
        <Spots mic={mic} doc={doc} onDone={() => setOpen(false)} />
      </Ask>
    </>
  );
}

function Spots({ mic, doc, onDone }: { mic: string; doc: Layout; onDone: () => void }) {
  const found = useQuery({
    queryKey: ["arc", doc, mic],
    queryFn: ({ signal }) =>
      exactly<Arc>(api.POST("/api/arc", { body: { layout: doc, mic }, signal })),
    retry: false,
    gcTime: 10_000,
  });
  if (found.error && !found.data) return <p role="alert">{found.error.message}</p>;
  if (!found.data) return <p className="text-soft">Looking round the arc…</p>;
  return <Swing arc={found.data} doc={doc} onDone={onDone} />;
}

function Swing({ arc, doc, onDone }: { arc: Arc; doc: Layout; onDone: () => void }) {
  const change = useChangeMic();
  const [n, swing] = useState(arc.best ?? arc.now);
  const spot = arc.spots[n];
  if (!spot) return null;
  const way = spot.turn_deg > 0 ? "toward the audience" : "toward the drummer";
  const turned = spot.turn_deg ? `${Math.abs(spot.turn_deg)}° ${way}` : "as planned";
  return (
    <div className="space-y-3 text-[0.92rem]">
      <p data-arc-words>{arc.words}</p>
      <Round arc={arc} doc={doc} n={n} />
      <Slide
        label={`Where on the arc ${arc.mic} stands`}
        text={turned}
        low={0}
        high={arc.spots.length - 1}
        step={1}
        value={n}
        onShow={swing}
        onTake={swing}
      />
      <AtSpot arc={arc} spot={spot} turned={turned} />
      <button
        type="button"
        className="btn-main w-full"
        disabled={n === arc.now || spot.blocked !== ""}
        onClick={() => {
          const { position_m, aim } = spot;
          change(arc.mic, { position_m, aim }, { why: `Swung ${arc.mic} ${turned}` });
          onDone();
        }}
      >
        Plan {arc.mic} here
      </button>
    </div>
  );
}

interface AtSpotProps {
  arc: Arc;
  spot: Arc["spots"][number];
  turned: string;
}

/** What the spot is like. */
function AtSpot({ arc, spot, turned }: AtSpotProps) {
  const ruler: Ruler = useMe();
  return (
    <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1" data-arc-turn={spot.turn_deg}>
      <dt className="text-soft">Swung</dt>
      <dd>{turned}</dd>
      <dt className="text-soft">{arc.floor} against the snare</dt>
      <dd className="num">{dbText(spot.floor_db)} dB</dd>
      <dt className="text-soft">Snare, kick</dt>
      <dd className="num">
        {lengthWithUnit(arc.snare_m, ruler)}, {lengthWithUnit(spot.kick_m, ruler)}
      </dd>
      <dt className="text-soft">A stand</dt>
      <dd className={spot.blocked ? "text-hollow" : "text-ring"}>{spot.blocked || "fits here"}</dd>
    </dl>
  );
}

/** The kit from above with the spots: filled where a stand fits, hollow where none does. */
function Round({ arc, doc, n }: { arc: Arc; doc: Layout; n: number }) {
  const drawn = { ...sketchOf(doc), mics: [] };
  const spots = arc.spots.map((s) => ({
    id: "",
    x: s.position_m[0],
    y: s.position_m[1],
    role: "overhead" as const,
  }));
  const box = boxOf({ ...drawn, mics: spots });
  const dot = 0.012 * box[3];
  return (
    <div className="relative">
      <Sketch summary={drawn} name="the kit" box={box} high="h-56" />
      <svg viewBox={box.join(" ")} className="absolute inset-0 h-56 w-full" role="img">
        <title>{`${arc.spots.filter((s) => !s.blocked).length} of ${arc.spots.length} spots are free`}</title>
        {arc.spots.map((s, k) => (
          <circle
            key={s.turn_deg}
            cx={s.position_m[0]}
            cy={-s.position_m[1]}
            r={k === n ? dot * 2 : dot}
            fill={s.blocked ? "var(--paper)" : "var(--ring)"}
            stroke={s.blocked ? "var(--hollow)" : "var(--ring)"}
            strokeWidth={dot / 3}
          />
        ))}
      </svg>
    </div>
  );
}
