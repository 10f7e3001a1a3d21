/** A handle ahead of the selected mic that turns its aim within the view. */
import type { Mic } from "../../api/types";
import { micOf } from "../../core/edits";
import { ahead } from "../../core/micPose";
import { type Point2, type Point3, spun, toScreen, unit, type View } from "../../core/view";
import { useSelected } from "../editing";
import { follow } from "../handSizes";
import type { InView } from "./look";

const REACH_PX = 46;
/** Nearer to its mic than this, seen along the aim, a press is meant for the mic. */
const APART_PX = 20;
const TURN = { ArrowLeft: 1, ArrowUp: 1, ArrowRight: -1, ArrowDown: -1 } as Record<string, number>;

/** The aim turned about the axis that looks out of the drawing. */
function turned(mic: Mic, view: View, angle: number): Point3 {
  const away: Record<View["facing"], Point3> = {
    above: [0, 0, 1],
    along: [0, -1, 0],
    side: [1, 0, 0],
  };
  const flip = view.facing !== "above" && view.side === "audience" ? -1 : 1;
  return unit(spun(mic.aim, away[view.facing], flip * angle));
}

/** The angle on the paper from one place to another, up being positive. */
const angleOf = (from: Point2, to: Point2) => Math.atan2(from[1] - to[1], to[0] - from[0]);
const DEGREE = Math.PI / 180;

type Props = Pick<InView, "view" | "layout"> & Required<Pick<InView, "onAim">>;

/** It looks up for itself what is selected: the chart need not be drawn anew for that. */
export function AimHandle({ view, layout, onAim }: Props) {
  const selected = useSelected();
  const mic = selected ? micOf(layout, selected) : undefined;
  if (!mic) return null;
  const tip = toScreen(ahead(mic, REACH_PX / view.scale), view);
  const at = toScreen(mic.position_m, view);
  const apart = Math.hypot(tip[0] - at[0], tip[1] - at[1]) > APART_PX;
  return (
    <g
      pointerEvents={apart ? undefined : "none"}
      role="slider"
      tabIndex={0}
      aria-label={`Aim of ${mic.id}`}
      aria-valuenow={Math.round(angleOf(at, tip) / DEGREE)}
      aria-valuemin={-180}
      aria-valuemax={180}
      className="cursor-crosshair"
      data-aim={mic.id}
      onKeyDown={(e) => {
        const step = TURN[e.key];
        if (!step) return;
        e.preventDefault();
        const degrees = step * (e.shiftKey ? 15 : e.altKey ? 1 : 5);
        onAim(mic.id, turned(mic, view, degrees * DEGREE), true);
      }}
      onPointerDown={(e) => {
        e.stopPropagation();
        const began = angleOf(at, tip);
        follow(e, (dx, dy, done) => {
          const now = angleOf(at, [tip[0] + dx, tip[1] + dy]);
          onAim(mic.id, turned(mic, view, now - began), done);
        });
      }}
    >
      <path
        d={`M${at[0]} ${at[1]}L${tip[0]} ${tip[1]}`}
        stroke="var(--ink)"
        strokeDasharray="2 3"
        pointerEvents="none"
      />
      <circle cx={tip[0]} cy={tip[1]} r="5" className="fill-card stroke-ink" strokeWidth="1.5" />
      <circle cx={tip[0]} cy={tip[1]} r="12" fill="transparent" />
    </g>
  );
}
