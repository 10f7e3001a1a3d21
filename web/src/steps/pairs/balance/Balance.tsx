/** What is up in the mix: every track on the loudness tapes, named balances, options. */
import { useState } from "react";
import { rowsOf, turnedOver } from "../../../core/loudness";
import { useEditorPart } from "../../../parts/editing";
import { useSize } from "../../../parts/useSize";
import { Balances } from "./Balances";
import { LoudnessTape } from "./LoudnessTape";
import { Options } from "./Options";
import { TrackPanel } from "./TrackPanel";
import { type Alone, useAlone } from "./useAlone";
import { type Faders, useFaders } from "./useFaders";

export function Balance() {
  const doc = useEditorPart((s) => s.still);
  const board = useEditorPart((s) => s.board);
  const [chosen, setChosen] = useState<string | null>(null);
  const [ref, { width }] = useSize<HTMLDivElement>();
  const faders = useFaders();
  const alone = useAlone();
  if (!board) return null;
  if (!board.tracks.length)
    return <p>No mic has a track yet, so all are judged as if they were recorded.</p>;
  const rows = rowsOf(doc);
  return (
    <div className="space-y-2">
      <Balances />
      <Options />
      <TrackPanel id={chosen} faders={faders} />
      <Changes faders={faders} />
      <div ref={ref} className="min-h-40">
        {width > 0 &&
          rows.map((row, n) => (
            <Tape
              key={row.source}
              {...{ row, layout: doc, board, wide: width, chosen, faders, alone }}
              last={n === rows.length - 1}
              onChoose={setChosen}
            />
          ))}
      </div>
      <p className="max-w-xl text-[0.84rem] text-soft">
        Levels count against each other only. A thick edge was set by somebody; the others are as
        usual for their role. The ticks on a tape are what the other mics have of that drum.
      </p>
    </div>
  );
}

/** A tape that can be heard alone. */
function Tape({ alone, ...tape }: Parameters<typeof LoudnessTape>[0] & { alone: Alone }) {
  const { row } = tape;
  const on = alone.of === row.source;
  return (
    <div className="relative">
      <LoudnessTape {...tape} />
      <button
        type="button"
        aria-pressed={on}
        aria-label={`${row.name} alone`}
        className={`absolute top-0 left-0 rounded px-1 text-[0.74rem] underline ${on ? "bg-ink text-panel" : "text-soft"}`}
        onClick={() => alone.hear(row)}
      >
        alone
      </button>
    </div>
  );
}

const MOST = 4;

/** What the fader under the hand turns over, as it passes a limit. */
function Changes({ faders }: { faders: Faders }) {
  const board = useEditorPart((s) => s.board);
  if (!faders.held || !faders.before || !board) return null;
  const turned = turnedOver(faders.before, board);
  const said = turned.slice(0, MOST).map((t) => `${t.pair} ${t.before} → ${t.after}`);
  if (turned.length > MOST) said.push(`and ${turned.length - MOST} more`);
  return (
    <p aria-live="polite" data-fader-turns className="text-[0.88rem] font-semibold">
      {said.length ? said.join("; ") : "No mark changes."}
    </p>
  );
}
