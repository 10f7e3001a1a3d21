/** The end of a snare's wires, to turn them by hand or with the arrow keys. */
import type { Drum } from "../../api/types";
import { type Point2, toScreen, type View } from "../../core/view";
import { wires } from "../../parts/chart/DrumShape";
import { follow } from "../../parts/handSizes";

interface Props {
  drum: Drum;
  view: View;
  /** From how they run to how they should: keys pressed fast each go on from the last. */
  onWires: (id: string, turn: (now: number) => number, done: boolean) => void;
}

const STEP = Math.PI / 36;
const TURN: Record<string, number> = { ArrowLeft: 1, ArrowUp: 1, ArrowRight: -1, ArrowDown: -1 };

export function WiresHandle({ drum, view, onWires }: Props) {
  const middle = toScreen(drum.batter_m, view);
  const end = toScreen(wires(drum)[1], view);
  const turn = drum.wires_rad ?? 0;
  const angle = (at: Point2) => Math.atan2(middle[1] - at[1], at[0] - middle[0]);
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label={`Wires of ${drum.name}`}
      aria-valuenow={Math.round((turn * 180) / Math.PI)}
      aria-valuemin={-360}
      aria-valuemax={360}
      className="cursor-crosshair"
      data-wires={drum.id}
      onKeyDown={(e) => {
        const by = TURN[e.key];
        if (!by) return;
        e.preventDefault();
        onWires(drum.id, (now) => now + by * STEP, true);
      }}
      onPointerDown={(e) => {
        if (e.button !== 0) return;
        e.stopPropagation();
        const began = angle(end);
        follow(e, (dx, dy, done) =>
          onWires(drum.id, () => turn + angle([end[0] + dx, end[1] + dy]) - began, done),
        );
      }}
    >
      <circle cx={end[0]} cy={end[1]} r="5" className="fill-card stroke-snare" strokeWidth="2" />
      <circle cx={end[0]} cy={end[1]} r="13" fill="transparent" />
    </g>
  );
}
