/** The room from above: walls, doors, spaces, gobos, the kit to drag and turn, spots to try. */
import { cornersOf } from "../../../core/roomShape";
import { useFitted } from "../../../parts/useFitted";
import { Labels, Lines } from "./Distances";
import { GoboHandles } from "./GoboHandles";
import { KitHandle } from "./KitHandle";
import { KitSheet, RoomMics } from "./KitInRoom";
import type { PlanProps } from "./pose";
import { SpotMap, Tried } from "./Spots";
import { Walls } from "./Walls";

export function RoomPlan(props: PlanProps) {
  const { room, layout, board, hand, ruler } = props;
  const { ref, size, view } = useFitted(cornersOf(room), 46);
  return (
    <div ref={ref} className="relative min-h-0 flex-1 overflow-hidden">
      {view.scale > 0 && (
        <>
          {/* What moves with the hand lies between what stands: neither has the other painted. */}
          <svg
            {...size}
            aria-hidden="true"
            className="absolute inset-0 bg-paper will-change-transform"
          >
            <Walls room={room} view={view} />
            {props.showMap && <SpotMap spots={board?.spots.spots} view={view} />}
          </svg>
          <Lines {...{ room, board, hand, view }} />
          <KitSheet {...{ layout, room, view }} />
          <svg
            {...size}
            role="group"
            aria-label={`Plan of ${room.name}`}
            className="absolute inset-0 touch-none will-change-transform select-none"
          >
            <RoomMics {...{ layout, room, view }} />
            <Tried tried={props.tried} room={room.name} view={view} />
            <GoboHandles kept={room} view={view} ruler={ruler} onGobo={props.onGobo} />
          </svg>
          <Labels {...{ room, board, hand, view, ruler }} />
          <KitHandle {...{ room, view, ruler }} onPose={props.onPose} onNudge={props.onNudge} />
        </>
      )}
    </div>
  );
}
