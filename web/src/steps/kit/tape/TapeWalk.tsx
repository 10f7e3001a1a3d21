/** The walk round the kit with a tape: one reading at a time, and what the readings say. */
import { useRef } from "react";
import type { KitBoard } from "../../../api/types";
import { partOf } from "../../../core/kitParts";
import { counted } from "../../../core/words";
import { useEditorPart } from "../../../parts/editing";
import { Elsewhere } from "./Elsewhere";
import { type Ends, NextReading } from "./NextReading";
import { OtherReading } from "./OtherReading";
import { Readings } from "./Readings";

interface Props {
  board: KitBoard | undefined;
  onSkip: (ends: Ends) => void;
  skipped: number;
  onUnskip: () => void;
}

export function TapeWalk({ board, onSkip, skipped, onUnskip }: Props) {
  const doc = useEditorPart((s) => s.still);
  const tape = board?.tape;
  // The next reading takes the focus only from the one just typed, never from the chart.
  const typed = useRef(false);
  return (
    <div className="grid h-full min-h-0 grid-cols-[minmax(0,21rem)_minmax(0,1fr)] gap-5 px-4 pb-3 max-[1050px]:grid-cols-[minmax(0,14rem)_minmax(0,1fr)] max-[1050px]:gap-3 narrow:h-auto narrow:grid-cols-[minmax(0,1fr)]">
      <div className="min-w-0 overflow-y-auto">
        {tape?.next ? (
          <NextReading
            key={`${tape.next.a} ${tape.next.b} ${tape.readings.length}`}
            {...{ tape, typed, onSkip }}
          />
        ) : (
          <p className="py-2">
            {tape
              ? "Every part is placed, and there is nothing left to check it by."
              : "Asking what to measure…"}
          </p>
        )}
        <p className="mt-2 text-[0.85rem]" data-tape-words>
          {tape?.words}
        </p>
        {tape && <HowFar tape={tape} />}
        {skipped > 0 && (
          <button type="button" className="text-[0.82rem] text-snare underline" onClick={onUnskip}>
            Ask for the {skipped} skipped again
          </button>
        )}
      </div>
      <div className="grid min-h-0 grid-rows-[auto_minmax(0,1fr)_auto] gap-2">
        <div>
          <Elsewhere name={(id) => (id === null ? "floor" : (partOf(doc, id)?.name ?? id))} />
        </div>
        <Readings rows={tape?.readings ?? []} doc={doc} />
        <OtherReading doc={doc} />
      </div>
    </div>
  );
}

function HowFar({ tape }: { tape: KitBoard["tape"] }) {
  return (
    <p className="text-[0.82rem] text-soft">
      {tape.placed} of {tape.parts.length} parts placed, {counted(tape.readings.length, "reading")};{" "}
      {tape.guarded} of them checked so well that a slip would show.
    </p>
  );
}
