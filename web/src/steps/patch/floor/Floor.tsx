/** The floor from above: where the boxes stand, and every cable square to the walls. */
import type { Layout, Room } from "../../../api/types";
import { cornersOf, toRoom } from "../../../core/roomShape";
import { type Point2, type Point3, toScreen, type View } from "../../../core/view";
import { useEditorPart } from "../../../parts/editing";
import { useLocker, useStock } from "../../../parts/stock";
import { useFitted } from "../../../parts/useFitted";
import { KitInRoom, RoomMics } from "../../room/plan/KitInRoom";
import { Walls } from "../../room/plan/Walls";
import { BoxHandle } from "./BoxHandle";
import { Runs } from "./Runs";
import { useBoxSpots } from "./useBoxes";

const MARGIN = 46;

export function Floor({ lit }: { lit: string | null }) {
  const doc = useEditorPart((s) => s.doc);
  const still = useEditorPart((s) => s.still);
  const room = doc.room ?? openFloor();
  const corners = doc.room ? cornersOf(room) : placesOf(still);
  const { ref, size, view } = useFitted(corners, MARGIN);
  return (
    <section ref={ref} className="relative overflow-hidden" aria-label="The boxes on the floor">
      {view.scale > 0 && (
        <svg
          width={size.width}
          height={size.height}
          role="group"
          aria-label={`Boxes and cables in ${room.name}`}
          className="absolute inset-0 touch-none select-none"
        >
          {doc.room && <Walls room={room} view={view} />}
          <KitInRoom layout={still} room={room} view={view} />
          <RoomMics layout={still} room={room} view={view} />
          <Cables doc={doc} room={room} view={view} lit={lit} />
        </svg>
      )}
    </section>
  );
}

/** Without a room the kit's own frame is the floor. */
const openFloor = (): Room =>
  ({ name: "an open floor", kit_x_m: 0, kit_y_m: 0, kit_turn_rad: 0, spaces: [] }) as never;

/** Round the kit, and as far as anything stands. */
function placesOf(layout: Layout): Point3[] {
  const boxes = (layout.boxes ?? []).map((b): Point3 => [...b.position_m, 0]);
  const mics = layout.mics.map((m) => m.position_m);
  return [[-2.5, -1.5, 0], [2.5, 3, 0], ...boxes, ...mics];
}

function Cables(props: { doc: Layout; room: Room; view: View; lit: string | null }) {
  const { doc, room, view, lit } = props;
  const inputs = useLocker().data?.locker.inputs ?? [];
  const leads = useStock(true).data?.leads ?? [];
  const spots = useBoxSpots();
  const to = (x: number, y: number): Point2 => toScreen([...toRoom(room, x, y), 0], view);
  const stands = inputs.flatMap((bank) => {
    const at = spots.get(bank.id);
    return at ? [{ bank, at }] : [];
  });
  const ends = new Map(stands.map(({ bank, at }) => [bank.name, to(...at)]));
  return (
    <>
      <Runs {...{ doc, leads, ends, to, lit }} />
      {stands.map(({ bank, at }) => (
        <BoxHandle key={bank.id} {...{ bank, at, room, view }} walls={Boolean(doc.room)} />
      ))}
    </>
  );
}
