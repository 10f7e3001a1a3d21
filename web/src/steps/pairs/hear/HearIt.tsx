/** Hear a pair on a drum: each alone, summed three ways, switched without a gap, and blind. */
import { useEffect, useState } from "react";
import type { Example, PairRow } from "../../../api/types";
import { the } from "../../../core/words";
import { Ask } from "../../../parts/Ask";
import { Listening } from "./Listening";
import { useExample } from "./useExample";

export function HearIt({ row, drum }: { row: PairRow; drum: string }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button
        type="button"
        className="btn px-2.5 py-1 text-[0.84rem]"
        onClick={() => setOpen(true)}
      >
        Hear it
      </button>
      <Ask
        open={open}
        wide
        onClose={() => setOpen(false)}
        title={`${row.a} and ${row.b} on ${the(drum)}`}
        about="A simulated drum through the arrivals, levels and signs of this layout; no room, no other drums."
      >
        {open && <Hearing row={row} />}
      </Ask>
    </>
  );
}

const SLOW_MS = 12_000;

function Hearing({ row }: { row: PairRow }) {
  const { example, bad, cancel, again } = useExample(row);
  if (bad) return <p role="alert">{bad}</p>;
  if (!example) return <p className="text-soft">Asking for it…</p>;
  if (example.state === "done") return <Listening example={example} row={row} />;
  if (example.state === "cancelled" || example.state === "failed")
    return (
      <div>
        <p role="alert">
          {example.state === "failed"
            ? `It could not be rendered. ${example.trouble}`
            : "Called off; nothing is kept."}
        </p>
        <button type="button" className="btn mt-2" onClick={again}>
          Render it after all
        </button>
      </div>
    );
  return <Rendering example={example} onCancel={cancel} />;
}

function Rendering({ example, onCancel }: { example: Example; onCancel: () => void }) {
  const [slow, setSlow] = useState(false);
  useEffect(() => {
    const timer = setTimeout(() => setSlow(true), SLOW_MS);
    return () => clearTimeout(timer);
  }, []);
  const waiting = example.state === "waiting";
  return (
    <div>
      <progress className="w-full" max={1} value={example.progress} aria-label="Rendering" />
      <p className="mt-1 text-[0.88rem] text-soft">
        {waiting ? "Waiting for a worker…" : "Rendering…"} {example.trouble}{" "}
        {waiting &&
          slow &&
          "None has taken it up yet. Workers start with the application; start it again if this lasts."}
      </p>
      <button type="button" className="btn mt-2" onClick={onCancel}>
        Cancel
      </button>
    </div>
  );
}
