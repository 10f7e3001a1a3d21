/** Doors: in which wall, how wide, where to, open or shut. */
import type { Room } from "../../api/types";
import { type Ruler, threeAcross } from "../../core/units";
import { LengthFields } from "../../parts/fields/Lengths";
import { Pick } from "../../parts/fields/Pick";
import { Tick } from "../../parts/fields/Tick";
import { useMe } from "../../parts/me";
import type { RoomPart } from "./useRoom";

type Door = Room["doors"][number];
const WALLS: Door["wall"][] = ["back", "front", "left", "right"];
const PLAIN: Door = { wall: "back", at_m: 0.5, width_m: 0.9, height_m: 2, open: false };

export function Doors({ room, put }: RoomPart) {
  const { doors } = room;
  return (
    <details>
      <summary className="font-bold">Doors ({doors.length})</summary>
      {doors.map((d, i) => (
        <OneDoor
          key={`${d.wall} ${i}`}
          name={`Door ${i + 1}`}
          door={d}
          room={room}
          onChange={(more) =>
            put({ doors: doors.map((x, k) => (k === i ? { ...x, ...more } : x)) })
          }
          onRemove={() => put({ doors: doors.filter((_, k) => k !== i) })}
        />
      ))}
      <button
        type="button"
        className="btn mt-2 w-full"
        onClick={() => put({ doors: [...doors, PLAIN] })}
      >
        Add a door
      </button>
    </details>
  );
}

interface One {
  name: string;
  door: Door;
  room: Room;
  onChange: (more: Partial<Door>) => void;
  onRemove: () => void;
}

function OneDoor({ name, door: d, room, onChange, onRemove }: One) {
  const ruler: Ruler = useMe();
  const aside = d.wall === "left" || d.wall === "right";
  return (
    <fieldset className={`mt-2 grid ${threeAcross(ruler)} gap-2 border-t border-hair pt-2`}>
      <legend className="sr-only">{name}</legend>
      <Pick
        label="Wall"
        value={d.wall}
        options={WALLS}
        onTake={(v) => onChange({ wall: v as Door["wall"] })}
      />
      <LengthFields
        rows={[
          [aside ? "From back" : "From left", d.at_m, (m) => onChange({ at_m: m })],
          ["Wide", d.width_m, (m) => onChange({ width_m: m })],
        ]}
      />
      <Pick
        label="Leads to"
        value={d.leads_to ?? ""}
        options={["", ...room.spaces.map((s) => s.id)]}
        names={{ "": "outside", ...Object.fromEntries(room.spaces.map((s) => [s.id, s.name])) }}
        onTake={(v) => onChange({ leads_to: v || null })}
      />
      <Tick
        className="items-end pb-1.5 text-[0.88rem]"
        checked={d.open}
        onTake={(open) => onChange({ open })}
      >
        open
      </Tick>
      <button type="button" className="btn self-end px-1" onClick={onRemove}>
        Remove
      </button>
    </fieldset>
  );
}
