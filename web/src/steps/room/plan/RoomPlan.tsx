/** The room from above: walls, doors, spaces, gobos, the kit to drag and turn, spots to try. */
import { useEffect, useState } from "react";
import type { Room } from "../../../api/types";
import { fitted, type Point2, type Point3, toScreen, type View } from "../../../core/view";
import { useSize } from "../../../parts/useSize";
import { Distances } from "./Distances";
import { GoboHandles } from "./GoboHandles";
import { KitHandle } from "./KitHandle";
import { KitInRoom, RoomMics } from "./KitInRoom";
import type { PlanProps } from "./pose";
import { SpotMap, Tried } from "./Spots";
import { Walls } from "./Walls";

/** The whole room with its spaces on the paper there is. */
function useFitted(room: Room) {
  const [ref, size] = useSize<HTMLDivElement>();
  const [view, setView] = useState<View>({
    facing: "above",
    side: "drummer",
    middle: [0, 0],
    scale: 0,
    ...size,
  });
  const spaces = room.spaces;
  const bounds = [
    [0, 0, room.width_m, room.length_m],
    ...spaces.map((s) => [s.x_m, s.y_m, s.x_m + s.width_m, s.y_m + s.length_m]),
  ].flat();
  const key = bounds.map((v) => v.toFixed(3)).join(" ");
  // biome-ignore lint/correctness/useExhaustiveDependencies: fits when paper or walls change, not as the kit moves
  useEffect(() => {
    if (!size.width) return;
    const corners: Point3[] = [];
    for (let i = 0; i < bounds.length; i += 2)
      corners.push([bounds[i] ?? 0, bounds[i + 1] ?? 0, 0]);
    setView(fitted(corners, { ...view, ...size }, 46));
  }, [size.width, size.height, key]);
  return { ref, size, view };
}

export function RoomPlan(props: PlanProps) {
  const { room, layout, still } = props;
  const { ref, size, view } = useFitted(room);
  const to = (x: number, y: number): Point2 => toScreen([x, y, 0], view);
  return (
    <div ref={ref} className="relative min-h-0 flex-1 overflow-hidden">
      {view.scale > 0 && (
        <svg
          width={size.width}
          height={size.height}
          role="group"
          aria-label={`Plan of ${room.name}`}
          className="absolute inset-0 touch-none will-change-transform select-none"
        >
          <Walls room={room} view={view} />
          {props.showMap && <SpotMap spots={props.board?.spots.spots} view={view} />}
          <Distances {...props} to={to} show="lines" />
          <KitInRoom layout={layout} room={room} view={view} />
          {still.room && <RoomMics layout={still} room={still.room} view={view} />}
          <Distances {...props} to={to} show="words" />
          <Tried tried={props.tried} room={room} to={to} />
          <GoboHandles room={room} view={view} ruler={props.ruler} onGobo={props.onGobo} />
          <KitHandle {...props} view={view} />
        </svg>
      )}
    </div>
  );
}
