/** What opens off the room: hallway, bathroom, stairwell. */
import type { Room } from "../../api/types";
import { type Ruler, threeAcross } from "../../core/units";
import { LengthFields } from "../../parts/fields/Lengths";
import { NameField } from "../../parts/fields/typed";
import { useMe } from "../../parts/me";
import type { RoomPart } from "./useRoom";

type Space = Room["spaces"][number];

function freeKey(taken: string[], stem: string): string {
  for (let n = 1; ; n++) if (!taken.includes(`${stem}${n}`)) return `${stem}${n}`;
}

function plain(room: Room): Space {
  return {
    id: freeKey(
      room.spaces.map((s) => s.id),
      "space",
    ),
    name: "Hallway",
    x_m: room.width_m + 0.2,
    y_m: 0,
    width_m: 1.5,
    length_m: Math.min(room.length_m, 6),
    height_m: 2.4,
    material: "plastered brick",
  };
}

export function Spaces({ room, put }: RoomPart) {
  const { spaces } = room;
  const remove = (gone: Space) =>
    put({
      spaces: spaces.filter((s) => s.id !== gone.id),
      doors: room.doors.map((d) => (d.leads_to === gone.id ? { ...d, leads_to: null } : d)),
    });
  return (
    <details open={spaces.length > 0}>
      <summary className="font-bold">What opens off it ({spaces.length})</summary>
      {spaces.map((s) => (
        <OneSpace
          key={s.id}
          space={s}
          onChange={(more) =>
            put({ spaces: spaces.map((x) => (x.id === s.id ? { ...x, ...more } : x)) })
          }
          onRemove={() => remove(s)}
        />
      ))}
      <button
        type="button"
        className="btn mt-2 w-full"
        onClick={() => put({ spaces: [...spaces, plain(room)] })}
      >
        Add a hallway, bathroom, stairwell
      </button>
    </details>
  );
}

function OneSpace(props: {
  space: Space;
  onChange: (more: Partial<Space>) => void;
  onRemove: () => void;
}) {
  const { space: s, onChange } = props;
  const ruler: Ruler = useMe();
  return (
    <fieldset className={`mt-2 grid ${threeAcross(ruler)} gap-2 border-t border-hair pt-2`}>
      <legend className="sr-only">{s.name}</legend>
      <div className="col-span-full">
        <NameField label="Name" value={s.name} onTake={(name) => onChange({ name })} />
      </div>
      <button type="button" className="btn self-end px-1" onClick={props.onRemove}>
        Remove
      </button>
      <LengthFields
        rows={[
          ["From left", s.x_m, (m) => onChange({ x_m: m })],
          ["From back", s.y_m, (m) => onChange({ y_m: m })],
          ["Ceiling", s.height_m, (m) => onChange({ height_m: m })],
          ["Across", s.width_m, (m) => onChange({ width_m: m })],
          ["Deep", s.length_m, (m) => onChange({ length_m: m })],
        ]}
      />
    </fieldset>
  );
}
