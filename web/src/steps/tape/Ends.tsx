/** The two ends of a reading, in words and drawn from above. */
import type { AskRow, Layout } from "../../api/types";
import { micOf } from "../../core/edits";
import { boxOf, sketchOf } from "../../core/sketch";
import { Sketch } from "../../parts/chart/Sketch";
import { useEditorPart } from "../../parts/editing";
import { MicTag } from "../../parts/MicTag";

export function Ends({ ask }: { ask: AskRow }) {
  const doc = useEditorPart((s) => s.still);
  const mic = micOf(doc, ask.mic);
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_124px] gap-2 rounded-lg bg-paper p-3">
      <div className="flex min-w-0 flex-col justify-between gap-3">
        <p className="flex items-center gap-2">
          {mic && <MicTag mic={mic} layout={doc} />}
          <span className="min-w-0">front of {mic?.name.toLowerCase() ?? ask.mic}</span>
        </p>
        <TapeLine />
        <p className="font-semibold" data-end={ask.to ?? "ground"}>
          {ask.to_words}
        </p>
      </div>
      <FromAbove ask={ask} doc={doc} />
    </div>
  );
}

const TICKS = Array.from({ length: 15 }, (_, n) => n);

function TapeLine() {
  return (
    <svg viewBox="0 0 200 22" className="h-5 w-full" aria-hidden="true" preserveAspectRatio="none">
      <rect x="6" y="4" width="188" height="9" fill="var(--snare)" fillOpacity="0.22" />
      {TICKS.map((n) => (
        <line
          key={n}
          x1={10 + n * 12.8}
          x2={10 + n * 12.8}
          y1="4"
          y2={n % 5 ? 13 : 19}
          stroke="var(--soft)"
        />
      ))}
      <circle cx="8" cy="9" r="6" fill="var(--ring)" />
      <circle cx="192" cy="9" r="6" fill="var(--snare)" />
    </svg>
  );
}

type Flat = readonly [number, number];

/** Where the other end is on the floor; straight under the mic for the floor itself. */
function endOf(doc: Layout, ask: AskRow, from: Flat): Flat {
  const part = [...doc.kit.drums, ...(doc.kit.cymbals ?? [])].find((p) => p.id === ask.to);
  const at = part
    ? "batter_m" in part
      ? part.batter_m
      : part.centre_m
    : ask.to === null
      ? undefined
      : micOf(doc, ask.to)?.position_m;
  return at ? [at[0], at[1]] : from;
}

function FromAbove({ ask, doc }: { ask: AskRow; doc: Layout }) {
  const drawn = sketchOf(doc);
  const mic = micOf(doc, ask.mic);
  if (!mic) return null;
  const from: Flat = [mic.position_m[0], mic.position_m[1]];
  const to = endOf(doc, ask, from);
  const own = { ...drawn, mics: drawn.mics.filter((m) => m.id === ask.mic || m.id === ask.to) };
  const box = boxOf(own);
  return (
    <div className="relative self-center">
      <Sketch summary={own} name="the two ends" box={box} high="h-28" />
      <svg viewBox={box.join(" ")} className="absolute inset-0 h-full w-full" aria-hidden="true">
        <line
          x1={from[0]}
          y1={-from[1]}
          x2={to[0]}
          y2={-to[1]}
          stroke="var(--snare)"
          strokeWidth={0.035 * Math.max(1, box[3] / 1.9)}
        />
      </svg>
    </div>
  );
}
