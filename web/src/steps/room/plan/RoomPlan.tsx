/** The room from above: walls, doors, spaces, gobos, the kit to drag and turn, spots to try. */
import { cornersOf } from "../../../core/roomShape";
import { type Point2, toScreen } from "../../../core/view";
import { useFitted } from "../../../parts/useFitted";
import { Distances } from "./Distances";
import { GoboHandles } from "./GoboHandles";
import { KitHandle } from "./KitHandle";
import { KitInRoom, RoomMics } from "./KitInRoom";
import type { PlanProps } from "./pose";
import { SpotMap, Tried } from "./Spots";
import { Walls } from "./Walls";

export function RoomPlan(props: PlanProps) {
  const { room, layout, still } = props;
  const { ref, size, view } = useFitted(cornersOf(room), 46);
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
