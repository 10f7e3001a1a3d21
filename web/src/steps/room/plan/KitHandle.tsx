/** Take the kit by the snare to move it, by the handle in front to turn it. */
import { type KeyboardEvent, memo, type PointerEvent } from "react";
import type { Room } from "../../../api/types";
import { inside, toRoom } from "../../../core/roomShape";
import { lengthWithUnit } from "../../../core/units";
import { moved, type Point2, type Point3, toScreen, type View } from "../../../core/view";
import { useEditor } from "../../../parts/editing";
import { arrowOf, follow, STEP_M, TURN_STEP } from "../../../parts/handSizes";
import { type PlanProps, snareAt, useCarried, useHeldTurn, withKit } from "./pose";

interface Props extends Pick<PlanProps, "onPose" | "onNudge" | "ruler"> {
  /** As it is kept. */
  room: Room;
  view: View;
}

/** Where the turning handle is, from the snare: right and ahead. */
const HANDLE_M: Point2 = [0.25, 1.25];

/** How far it reaches from the snare, with room for a finger, pixels. */
const reachOf = (view: View) => Math.ceil(Math.hypot(...HANDLE_M) * view.scale + FINGER_PX);
const FINGER_PX = 26;

/** On a sheet of its own, over all that is drawn: what is not the handle is no hindrance. */
export function KitHandle(props: Props) {
  const { room, view } = props;
  const turn = useHeldTurn(room);
  const sheet = useCarried<SVGSVGElement>(room, view, withKit);
  const [x, y] = snareAt(room, view).map(Math.floor) as [number, number];
  const far = reachOf(view);
  const [left, top, wide] = [x - far, y - far, 2 * far];
  return (
    <svg
      ref={sheet}
      role="group"
      aria-label="Where the kit stands"
      width={wide}
      height={wide}
      viewBox={`${left} ${top} ${wide} ${wide}`}
      className="pointer-events-none absolute touch-none select-none"
      style={{ left, top }}
    >
      <g pointerEvents="auto">
        <Hold {...props} />
        <Turn {...props} turn={turn} />
      </g>
    </svg>
  );
}

/** Where it is at the moment of a press: what was let go of just before may not be kept yet. */
function useShown(kept: Room): () => Room {
  const editor = useEditor();
  return () => editor.snapshot().doc.room ?? kept;
}

function byKey(e: KeyboardEvent, onNudge: Props["onNudge"]) {
  const size = STEP_M * (e.shiftKey ? 10 : e.altKey ? 0.1 : 5);
  const arrow = arrowOf(e);
  if (arrow) onNudge({ x: arrow[0] * size, y: -arrow[1] * size, turn: 0 });
  else if (e.key === "PageUp" || e.key === "PageDown")
    onNudge({ x: 0, y: 0, turn: e.key === "PageUp" ? TURN_STEP : -TURN_STEP });
  else return;
  e.preventDefault();
}

function spoken({ room, ruler }: Props): string {
  const degrees = Math.round((room.kit_turn_rad * 180) / Math.PI);
  return `The kit: its snare ${lengthWithUnit(room.kit_x_m, ruler)} from the left wall, ${lengthWithUnit(room.kit_y_m, ruler)} from the back wall, turned ${degrees}°. Arrows move it, Page Up and Page Down turn it`;
}

const Hold = memo(function Hold(props: Props) {
  const { room, view, onPose } = props;
  const shown = useShown(room);
  const [cx, cy] = snareAt(room, view);
  return (
    <g
      role="button"
      tabIndex={0}
      data-kit
      aria-label={spoken(props)}
      className="cursor-grab"
      onKeyDown={(e) => byKey(e, props.onNudge)}
      onPointerDown={(e) => {
        if (e.button !== 0) return;
        const held = shown();
        const from: Point3 = [held.kit_x_m, held.kit_y_m, 0];
        follow(e, (dx, dy, done) => {
          const [there, along] = moved(from, dx, dy, view);
          const [x, y] = inside(room, there, along);
          onPose({ x, y, turn: held.kit_turn_rad }, done);
        });
      }}
    >
      <circle {...{ cx, cy }} r={FINGER_PX} fill="transparent" />
      <circle {...{ cx, cy }} r="7" className="fill-snare stroke-card" strokeWidth="2" />
    </g>
  );
});

const Turn = memo(function Turn(props: Props & { turn: number }) {
  const { room, view, turn, onPose } = props;
  const shown = useShown(room);
  const here = snareAt(room, view);
  const handle = toScreen([...toRoom({ ...room, kit_turn_rad: turn }, ...HANDLE_M), 0], view);
  const angle = (x: number, y: number) => Math.atan2(here[1] - y, x - here[0]);
  const grab = (e: PointerEvent<SVGGElement>) => {
    if (e.button !== 0) return;
    const held = shown();
    const began = angle(...handle);
    follow(e, (dx, dy, done) => {
      const by = angle(handle[0] + dx, handle[1] + dy) - began;
      onPose({ x: held.kit_x_m, y: held.kit_y_m, turn: held.kit_turn_rad + by }, done);
    });
  };
  const [cx, cy] = handle;
  return (
    <g className="cursor-crosshair" data-turn onPointerDown={grab}>
      <path
        d={`M${here[0]} ${here[1]}L${cx} ${cy}`}
        stroke="var(--ink)"
        strokeDasharray="2 3"
        pointerEvents="none"
      />
      <circle {...{ cx, cy }} r="6" className="fill-card stroke-ink" strokeWidth="1.5" />
      <circle {...{ cx, cy }} r="14" fill="transparent" />
    </g>
  );
});
