/** Gobos: where they stand, how they are turned, what covers them. */
import type { Room } from "../../api/types";
import { type Ruler, threeAcross } from "../../core/units";
import { LengthFields } from "../../parts/fields/Lengths";
import { Pick } from "../../parts/fields/Pick";
import { NumberField } from "../../parts/fields/typed";
import { useMe } from "../../parts/me";
import { NudgeOnFloor } from "./NudgeOnFloor";
import type { GoboChange } from "./plan/GoboHandles";
import type { RoomPart } from "./useRoom";
import { useGobo, useMaterials } from "./useRoom";

type Gobo = Room["gobos"][number];
const DEG = 180 / Math.PI;

function plain(room: Room): Gobo {
  return {
    name: `Gobo ${room.gobos.length + 1}`,
    x_m: Math.max(0.4, room.kit_x_m - 1.6),
    y_m: room.kit_y_m,
    width_m: 1.2,
    height_m: 1.2,
    from_m: 0,
    thickness_m: 0.1,
    turn_rad: Math.PI / 2,
    material: "fabric panel",
  };
}

/** A card of foam on a stand of its own, level with the snare and turned to be dragged to it. */
function foam(room: Room): Gobo {
  return {
    name: `Foam ${room.gobos.length + 1}`,
    x_m: Math.max(0.2, room.kit_x_m - 0.2),
    y_m: room.kit_y_m + 0.1,
    width_m: 0.25,
    height_m: 0.25,
    from_m: 0.68,
    thickness_m: 0.03,
    turn_rad: Math.PI / 4,
    material: "fabric panel",
  };
}

export function Gobos({ room, put }: RoomPart) {
  const { gobos } = room;
  const onGobo = useGobo();
  return (
    <details>
      <summary className="font-bold">Gobos ({gobos.length})</summary>
      {gobos.map((g, i) => (
        <OneGobo
          key={`${g.name} ${i}`}
          gobo={g}
          onNudge={(change) => onGobo(i, change, "nudged")}
          onChange={(more) =>
            put({ gobos: gobos.map((x, k) => (k === i ? { ...x, ...more } : x)) })
          }
          onRemove={() => put({ gobos: gobos.filter((_, k) => k !== i) })}
        />
      ))}
      <div className="mt-2 grid grid-cols-2 gap-2">
        {(
          [
            ["Add a gobo", plain],
            ["Add a foam card", foam],
          ] as const
        ).map(([words, made]) => (
          <button
            key={words}
            type="button"
            className="btn px-1"
            onClick={() => put({ gobos: [...gobos, made(room)] })}
          >
            {words}
          </button>
        ))}
      </div>
      <p className="mt-2 text-[0.8rem] text-soft">
        They take from what passes them, by band; what they send back is left out.
      </p>
    </details>
  );
}

function OneGobo(props: {
  gobo: Gobo;
  onNudge: (change: GoboChange) => void;
  onChange: (more: Partial<Gobo>) => void;
  onRemove: () => void;
}) {
  const { gobo: g, onChange } = props;
  const ruler: Ruler = useMe();
  const names = useMaterials().data?.materials.map((m) => m.name) ?? [];
  return (
    <fieldset className={`mt-2 grid ${threeAcross(ruler)} gap-2 border-t border-hair pt-2`}>
      <legend className="sr-only">{g.name}</legend>
      <LengthFields
        rows={[
          ["From left", g.x_m, (m) => onChange({ x_m: m })],
          ["From back", g.y_m, (m) => onChange({ y_m: m })],
        ]}
      />
      <NumberField
        label="Turned, °"
        value={g.turn_rad * DEG}
        digits={0}
        low={-360}
        high={360}
        onTake={(v) => onChange({ turn_rad: v / DEG })}
      />
      <div className="col-span-full hidden narrow:block pointer-coarse:block">
        <NudgeOnFloor
          name={g.name}
          onStep={(x, y) => props.onNudge((now) => ({ x_m: now.x_m + x, y_m: now.y_m + y }))}
          onTurn={(by) => props.onNudge((now) => ({ turn_rad: now.turn_rad + by }))}
        />
      </div>
      <LengthFields
        rows={[
          ["Wide", g.width_m, (m) => onChange({ width_m: m })],
          ["High", g.height_m, (m) => onChange({ height_m: m })],
          ["Raised", g.from_m, (m) => onChange({ from_m: m })],
        ]}
      />
      <Pick
        label="Covered"
        value={g.material}
        options={names}
        onTake={(v) => onChange({ material: v as Gobo["material"] })}
      />
      <button type="button" className="btn col-span-full px-1" onClick={props.onRemove}>
        Remove {g.name}
      </button>
    </fieldset>
  );
}
