/** The room in numbers: size, shape, surfaces, doors, what opens off it, gobos. */
import type { Room } from "../../api/types";
import { useCalmPart } from "../../parts/editing";
import { Lengths } from "../../parts/fields/Lengths";
import { Pick } from "../../parts/fields/Pick";
import { NameField, NumberField } from "../../parts/fields/typed";
import { OneByOne } from "../../parts/Later";
import { Doors } from "./Doors";
import { Gobos } from "./Gobos";
import { KeepRoom } from "./KeepRoom";
import { NudgeOnFloor } from "./NudgeOnFloor";
import { Rug } from "./Rug";
import { Spaces } from "./Spaces";
import { type RoomPart, useMaterials, usePose, useSetRoom } from "./useRoom";

const SURFACES = ["floor", "ceiling", "back", "front", "left", "right"] as const;
const CORNERS = ["", "back left", "back right", "front left", "front right"];
const DEG = 180 / Math.PI;

export function RoomPanel({ room }: { room: Room }) {
  const set = useSetRoom();
  const put = (change: Partial<Room>) => set({ ...room, ...change });
  return (
    <div className="space-y-4">
      <OneByOne>
        <NameField label="Room" value={room.name} onTake={(name) => put({ name })} />
        <Lengths
          rows={[
            ["Across", room.width_m, (m) => put({ width_m: m })],
            ["Deep", room.length_m, (m) => put({ length_m: m })],
            ["Ceiling", room.height_m, (m) => put({ height_m: m })],
          ]}
        />
        <Corner room={room} put={put} />
        <KitStands put={put} />
        <Surfaces room={room} put={put} />
        <Spaces room={room} put={put} />
        <Doors room={room} put={put} />
        <GobosUnderHand room={room} put={put} />
        <Rug />
        <KeepRoom room={room} />
      </OneByOne>
    </div>
  );
}

/** Where the kit stands, also while a hand moves it. */
function KitStands({ put }: Pick<RoomPart, "put">) {
  const room = useCalmPart((s) => s.doc.room);
  if (!room) return null;
  return (
    <>
      <Lengths
        across={2}
        rows={[
          ["Snare from left", room.kit_x_m, (m) => put({ kit_x_m: m })],
          ["Snare from back", room.kit_y_m, (m) => put({ kit_y_m: m })],
        ]}
      />
      <NumberField
        label="Turned, degrees"
        value={room.kit_turn_rad * DEG}
        digits={0}
        low={-360}
        high={360}
        onTake={(v) => put({ kit_turn_rad: v / DEG })}
      />
      <NudgeKit />
    </>
  );
}

/** The kit by steps of a thumb: hit, move, hit; half a metre is heard on the kick. */
function NudgeKit() {
  const { onNudge } = usePose();
  return (
    <NudgeOnFloor
      name="the kit"
      onStep={(x, y) => onNudge({ x, y, turn: 0 })}
      onTurn={(turn) => onNudge({ x: 0, y: 0, turn })}
    />
  );
}

function GobosUnderHand({ room, put }: RoomPart) {
  const gobos = useCalmPart((s) => s.doc.room?.gobos) ?? room.gobos;
  return <Gobos room={{ ...room, gobos }} put={put} />;
}

function Surfaces({ room, put }: RoomPart) {
  const materials = useMaterials().data;
  const names = materials?.materials.map((m) => m.name) ?? [];
  return (
    <fieldset className="space-y-1.5">
      <legend className="mb-1 font-bold">Surfaces</legend>
      {SURFACES.map((s) => (
        <div key={s} className="grid grid-cols-[4.2rem_1fr] items-center gap-2 text-[0.88rem]">
          <span className="text-soft" aria-hidden="true">
            {s}
          </span>
          <Pick
            label={`Material of the ${s}`}
            hideLabel
            className="w-full"
            value={room.surfaces[s] ?? ""}
            options={names}
            onTake={(v) => put({ surfaces: { ...room.surfaces, [s]: v } })}
          />
        </div>
      ))}
      <p className="text-[0.75rem] text-soft">{materials?.source}.</p>
    </fieldset>
  );
}

function Corner({ room, put }: RoomPart) {
  const notch = room.notch ?? null;
  const take = (corner: string) => {
    if (!corner) return put({ notch: null });
    const size = notch ?? { width_m: room.width_m / 3, length_m: room.length_m / 3 };
    put({ notch: { ...size, corner: corner as NonNullable<Room["notch"]>["corner"] } });
  };
  return (
    <div className="space-y-2">
      <Pick
        label="Shape"
        value={notch?.corner ?? ""}
        options={CORNERS}
        names={{ "": "a box" }}
        onTake={take}
      />
      {notch && (
        <Lengths
          across={2}
          rows={[
            ["Cut across", notch.width_m, (m) => put({ notch: { ...notch, width_m: m } })],
            ["Cut deep", notch.length_m, (m) => put({ notch: { ...notch, length_m: m } })],
          ]}
        />
      )}
    </div>
  );
}
