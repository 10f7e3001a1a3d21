/** A mic's short name on a plate, as it stands in every list and drawing. */
import type { Layout, Mic } from "../api/types";
import { micColour } from "../core/words";

export function MicTag({ mic, layout, lit = false }: { mic: Mic; layout: Layout; lit?: boolean }) {
  const colour = micColour(mic, layout);
  const style = lit
    ? { background: colour, borderColor: colour, color: "var(--on)" }
    : { borderColor: colour };
  return (
    <span
      className="num inline-block min-w-9 rounded-md border bg-card px-1.5 py-0.5 text-center text-[0.85rem] font-bold"
      style={style}
    >
      {mic.id}
    </span>
  );
}
