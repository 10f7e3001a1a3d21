/** The room in numbers: size, shape, surfaces, doors, what opens off it, gobos. */
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, exactly, must } from "../../api/client";
import type { KeptRoom, Materials, Room } from "../../api/types";
import { type Ruler, threeAcross } from "../../core/units";
import { useEditor, useEditorPart } from "../../parts/editing";
import { Choice, NumberField, TextField } from "../../parts/fields";
import { LengthField } from "../../parts/LengthField";
import { useMe } from "../../parts/me";
import { useToast } from "../../parts/toast";
import { useKitHands } from "../kit/hands";

const SURFACES = ["floor", "ceiling", "back", "front", "left", "right"] as const;
const WALLS = ["back", "front", "left", "right"] as const;
const CORNERS = ["", "back left", "back right", "front left", "front right"];

export function useMaterials() {
  return useQuery({
    queryKey: ["materials"],
    queryFn: () => exactly<Materials>(api.GET("/api/room/materials")),
    staleTime: Number.POSITIVE_INFINITY,
  });
}

export function useSetRoom() {
  const hands = useKitHands();
  return (room: Room | null) => void hands.commit(() => ({ do: "room", room }));
}

export function RoomPanel({ room }: { room: Room }) {
  const set = useSetRoom();
  const ruler: Ruler = useMe();
  const materials = useMaterials().data;
  const names = materials?.materials.map((m) => m.name) ?? [];
  const put = (change: Partial<Room>) => set({ ...room, ...change });
  const surfaces = room.surfaces;
  return (
    <div className="space-y-4">
      <TextField
        label="Room"
        value={room.name}
        wrong="1 to 80 letters"
        onTake={(v) => {
          if (!v || v.length > 80) return false;
          put({ name: v });
          return true;
        }}
      />
      <div className={`grid ${threeAcross(ruler)} gap-2`}>
        <LengthField
          label="Across"
          metres={room.width_m}
          ruler={ruler}
          onTake={(m) => put({ width_m: m })}
        />
        <LengthField
          label="Deep"
          metres={room.length_m}
          ruler={ruler}
          onTake={(m) => put({ length_m: m })}
        />
        <LengthField
          label="Ceiling"
          metres={room.height_m}
          ruler={ruler}
          onTake={(m) => put({ height_m: m })}
        />
      </div>
      <Corner room={room} put={put} ruler={ruler} />
      <div className="grid grid-cols-2 gap-2">
        <LengthField
          label="Snare from left"
          metres={room.kit_x_m}
          ruler={ruler}
          onTake={(m) => put({ kit_x_m: m })}
        />
        <LengthField
          label="Snare from back"
          metres={room.kit_y_m}
          ruler={ruler}
          onTake={(m) => put({ kit_y_m: m })}
        />
        <NumberField
          label="Turned, degrees"
          value={(room.kit_turn_rad * 180) / Math.PI}
          digits={0}
          low={-360}
          high={360}
          onTake={(v) => put({ kit_turn_rad: (v * Math.PI) / 180 })}
        />
      </div>
      <fieldset className="space-y-1.5">
        <legend className="mb-1 font-bold">Surfaces</legend>
        {SURFACES.map((s) => (
          <label key={s} className="grid grid-cols-[4.2rem_1fr] items-center gap-2 text-[0.88rem]">
            <span className="text-soft">{s}</span>
            <select
              className="field"
              value={surfaces[s] ?? ""}
              aria-label={`Material of the ${s}`}
              onChange={(e) => put({ surfaces: { ...surfaces, [s]: e.target.value } })}
            >
              {names.map((n) => (
                <option key={n}>{n}</option>
              ))}
            </select>
          </label>
        ))}
        <p className="text-[0.75rem] text-soft">{materials?.source}.</p>
      </fieldset>
      <Spaces room={room} put={put} ruler={ruler} />
      <Doors room={room} put={put} ruler={ruler} />
      <Gobos room={room} put={put} ruler={ruler} names={names} />
      <Rug ruler={ruler} />
      <KeepRoom room={room} />
    </div>
  );
}

const PLAIN_RUG = { centre_m: [0.18, 0.14] as [number, number], width_m: 2.4, length_m: 2 };

/** The rug goes with the kit; it takes from the decay what it covers. */
function Rug({ ruler }: { ruler: Ruler }) {
  const editor = useEditor();
  const rug = useEditorPart((s) => s.still.kit.rug) ?? null;
  const put = (next: typeof rug, what: string) => {
    const { still } = editor.snapshot();
    editor.commit({ ...still, kit: { ...still.kit, rug: next } }, what);
  };
  if (!rug)
    return (
      <button type="button" className="btn w-full" onClick={() => put(PLAIN_RUG, "Laid a rug")}>
        Lay a rug under the kit
      </button>
    );
  const change = (more: Partial<typeof rug>) => put({ ...rug, ...more }, "Changed the rug");
  const [x, y] = rug.centre_m;
  return (
    <details>
      <summary className="font-bold">Rug under the kit</summary>
      <div className="mt-2 grid grid-cols-2 gap-2">
        <LengthField
          label="Across"
          metres={rug.width_m}
          ruler={ruler}
          onTake={(m) => change({ width_m: m })}
        />
        <LengthField
          label="Deep"
          metres={rug.length_m}
          ruler={ruler}
          onTake={(m) => change({ length_m: m })}
        />
        <LengthField
          label="Middle, right"
          metres={x}
          ruler={ruler}
          onTake={(m) => change({ centre_m: [m, y] })}
        />
        <LengthField
          label="Middle, front"
          metres={y}
          ruler={ruler}
          onTake={(m) => change({ centre_m: [x, m] })}
        />
      </div>
      <button
        type="button"
        className="btn mt-2 w-full"
        onClick={() => put(null, "Took the rug away")}
      >
        Take the rug away
      </button>
    </details>
  );
}

interface Part {
  room: Room;
  ruler: Ruler;
  put: (change: Partial<Room>) => void;
}

function Corner({ room, put, ruler }: Part) {
  const notch = room.notch ?? null;
  const take = (corner: string) => {
    if (!corner) return put({ notch: null });
    const size = notch ?? { width_m: room.width_m / 3, length_m: room.length_m / 3 };
    put({ notch: { ...size, corner: corner as NonNullable<Room["notch"]>["corner"] } });
  };
  return (
    <div className="grid grid-cols-2 items-end gap-2">
      <div className="col-span-full">
        <Choice
          label="Shape"
          value={notch?.corner ?? ""}
          options={CORNERS}
          names={{ "": "a box" }}
          onTake={take}
        />
      </div>
      {notch && (
        <>
          <LengthField
            label="Cut across"
            metres={notch.width_m}
            ruler={ruler}
            onTake={(m) => put({ notch: { ...notch, width_m: m } })}
          />
          <LengthField
            label="Cut deep"
            metres={notch.length_m}
            ruler={ruler}
            onTake={(m) => put({ notch: { ...notch, length_m: m } })}
          />
        </>
      )}
    </div>
  );
}

function freeKey(taken: string[], stem: string): string {
  for (let n = 1; ; n++) if (!taken.includes(`${stem}${n}`)) return `${stem}${n}`;
}

function Spaces({ room, put, ruler }: Part) {
  const spaces = room.spaces;
  const change = (i: number, more: Partial<(typeof spaces)[number]>) =>
    put({ spaces: spaces.map((s, k) => (k === i ? { ...s, ...more } : s)) });
  const add = () =>
    put({
      spaces: [
        ...spaces,
        {
          id: freeKey(
            spaces.map((s) => s.id),
            "space",
          ),
          name: "Hallway",
          x_m: room.width_m + 0.2,
          y_m: 0,
          width_m: 1.5,
          length_m: Math.min(room.length_m, 6),
          height_m: 2.4,
          material: "plastered brick",
        },
      ],
    });
  return (
    <details open={spaces.length > 0}>
      <summary className="font-bold">What opens off it ({spaces.length})</summary>
      {spaces.map((s, i) => (
        <fieldset
          key={s.id}
          className={`mt-2 grid ${threeAcross(ruler)} gap-2 border-t border-hair pt-2`}
        >
          <legend className="sr-only">{s.name}</legend>
          <div className="col-span-full">
            <TextField
              label="Name"
              value={s.name}
              wrong="1 to 80 letters"
              onTake={(v) => {
                if (!v || v.length > 80) return false;
                change(i, { name: v });
                return true;
              }}
            />
          </div>
          <button
            type="button"
            className="btn self-end px-1"
            onClick={() =>
              put({
                spaces: spaces.filter((_, k) => k !== i),
                doors: room.doors.map((d) => (d.leads_to === s.id ? { ...d, leads_to: null } : d)),
              })
            }
          >
            Remove
          </button>
          <LengthField
            label="From left"
            metres={s.x_m}
            ruler={ruler}
            onTake={(m) => change(i, { x_m: m })}
          />
          <LengthField
            label="From back"
            metres={s.y_m}
            ruler={ruler}
            onTake={(m) => change(i, { y_m: m })}
          />
          <LengthField
            label="Ceiling"
            metres={s.height_m}
            ruler={ruler}
            onTake={(m) => change(i, { height_m: m })}
          />
          <LengthField
            label="Across"
            metres={s.width_m}
            ruler={ruler}
            onTake={(m) => change(i, { width_m: m })}
          />
          <LengthField
            label="Deep"
            metres={s.length_m}
            ruler={ruler}
            onTake={(m) => change(i, { length_m: m })}
          />
        </fieldset>
      ))}
      <button type="button" className="btn mt-2 w-full" onClick={add}>
        Add a hallway, bathroom, stairwell
      </button>
    </details>
  );
}

function Doors({ room, put, ruler }: Part) {
  const doors = room.doors;
  const change = (i: number, more: Partial<(typeof doors)[number]>) =>
    put({ doors: doors.map((d, k) => (k === i ? { ...d, ...more } : d)) });
  return (
    <details>
      <summary className="font-bold">Doors ({doors.length})</summary>
      {doors.map((d, i) => (
        <fieldset
          key={`${d.wall} ${i}`}
          className={`mt-2 grid ${threeAcross(ruler)} gap-2 border-t border-hair pt-2`}
        >
          <legend className="sr-only">Door {i + 1}</legend>
          <Choice
            label="Wall"
            value={d.wall}
            options={[...WALLS]}
            onTake={(v) => change(i, { wall: v as (typeof WALLS)[number] })}
          />
          <LengthField
            label={d.wall === "left" || d.wall === "right" ? "From back" : "From left"}
            metres={d.at_m}
            ruler={ruler}
            onTake={(m) => change(i, { at_m: m })}
          />
          <LengthField
            label="Wide"
            metres={d.width_m}
            ruler={ruler}
            onTake={(m) => change(i, { width_m: m })}
          />
          <Choice
            label="Leads to"
            value={d.leads_to ?? ""}
            options={["", ...room.spaces.map((s) => s.id)]}
            names={{
              "": "outside",
              ...Object.fromEntries(room.spaces.map((s) => [s.id, s.name])),
            }}
            onTake={(v) => change(i, { leads_to: v || null })}
          />
          <label className="flex items-end gap-1.5 pb-1.5 text-[0.88rem]">
            <input
              type="checkbox"
              checked={d.open}
              onChange={(e) => change(i, { open: e.target.checked })}
            />
            open
          </label>
          <button
            type="button"
            className="btn self-end px-1"
            onClick={() => put({ doors: doors.filter((_, k) => k !== i) })}
          >
            Remove
          </button>
        </fieldset>
      ))}
      <button
        type="button"
        className="btn mt-2 w-full"
        onClick={() =>
          put({
            doors: [...doors, { wall: "back", at_m: 0.5, width_m: 0.9, height_m: 2, open: false }],
          })
        }
      >
        Add a door
      </button>
    </details>
  );
}

function Gobos({ room, put, ruler, names }: Part & { names: string[] }) {
  const gobos = room.gobos;
  const change = (i: number, more: Partial<(typeof gobos)[number]>) =>
    put({ gobos: gobos.map((g, k) => (k === i ? { ...g, ...more } : g)) });
  const add = () =>
    put({
      gobos: [
        ...gobos,
        {
          name: `Gobo ${gobos.length + 1}`,
          x_m: Math.max(0.4, room.kit_x_m - 1.6),
          y_m: room.kit_y_m,
          width_m: 1.2,
          height_m: 1.2,
          thickness_m: 0.1,
          turn_rad: Math.PI / 2,
          material: "fabric panel",
        },
      ],
    });
  return (
    <details>
      <summary className="font-bold">Gobos ({gobos.length})</summary>
      {gobos.map((g, i) => (
        <fieldset
          key={`${g.name} ${i}`}
          className={`mt-2 grid ${threeAcross(ruler)} gap-2 border-t border-hair pt-2`}
        >
          <legend className="sr-only">{g.name}</legend>
          <LengthField
            label="From left"
            metres={g.x_m}
            ruler={ruler}
            onTake={(m) => change(i, { x_m: m })}
          />
          <LengthField
            label="From back"
            metres={g.y_m}
            ruler={ruler}
            onTake={(m) => change(i, { y_m: m })}
          />
          <NumberField
            label="Turned, °"
            value={(g.turn_rad * 180) / Math.PI}
            digits={0}
            low={-360}
            high={360}
            onTake={(v) => change(i, { turn_rad: (v * Math.PI) / 180 })}
          />
          <LengthField
            label="Wide"
            metres={g.width_m}
            ruler={ruler}
            onTake={(m) => change(i, { width_m: m })}
          />
          <LengthField
            label="High"
            metres={g.height_m}
            ruler={ruler}
            onTake={(m) => change(i, { height_m: m })}
          />
          <Choice
            label="Covered"
            value={g.material}
            options={names}
            onTake={(v) => change(i, { material: v })}
          />
          <button
            type="button"
            className="btn col-span-full px-1"
            onClick={() => put({ gobos: gobos.filter((_, k) => k !== i) })}
          >
            Remove {g.name}
          </button>
        </fieldset>
      ))}
      <button type="button" className="btn mt-2 w-full" onClick={add}>
        Add a gobo
      </button>
    </details>
  );
}

/** The studio's rooms: take one, keep this one. */
export function KeepRoom({ room }: { room: Room | null }) {
  const studio = useEditorPart((s) => s.out.studio_id);
  const set = useSetRoom();
  const say = useToast();
  const queries = useQueryClient();
  const path = { params: { path: { pk: studio } } };
  const rooms = useQuery({
    queryKey: ["rooms", studio],
    queryFn: () => exactly<KeptRoom[]>(api.GET("/api/studios/{pk}/rooms", path)),
  });
  const again = () => {
    void queries.invalidateQueries({ queryKey: ["rooms", studio] });
    void queries.invalidateQueries({ queryKey: ["starts"] });
  };
  const keep = useMutation({
    mutationFn: (body: Room) =>
      exactly<KeptRoom>(api.POST("/api/studios/{pk}/rooms", { ...path, body })),
    onSuccess: (kept) => {
      again();
      say(`${kept.name} is kept for next time`);
    },
    onError: (e) => say(e.message),
  });
  const drop = useMutation({
    mutationFn: (kept: KeptRoom) =>
      must(
        api.DELETE("/api/studios/{pk}/rooms/{room}", {
          params: { path: { pk: studio, room: kept.id } },
        }),
      ),
    onSuccess: (_, kept) => {
      again();
      say(`${kept.name} is no longer kept`, { label: "Undo", run: () => keep.mutate(kept.room) });
    },
    onError: (e) => say(e.message),
  });
  const mine = rooms.data?.find((r) => r.name === room?.name);
  return (
    <div className="space-y-2 border-t border-hair pt-3">
      <label className="block">
        <span className="text-[0.8rem] text-soft">Take a room of the studio</span>
        <select
          className="field w-full"
          aria-label="Take a room of the studio"
          value=""
          onChange={(e) => {
            const found = rooms.data?.find((r) => String(r.id) === e.target.value);
            if (found) set(found.room);
          }}
        >
          <option value="">choose …</option>
          {rooms.data?.map((r) => (
            <option key={r.id} value={r.id}>
              {r.name}
            </option>
          ))}
        </select>
      </label>
      {room && (
        <div className="flex gap-2">
          <button type="button" className="btn flex-1" onClick={() => keep.mutate(room)}>
            Keep for next time
          </button>
          {mine && (
            <button type="button" className="btn" onClick={() => drop.mutate(mine)}>
              Forget
            </button>
          )}
        </div>
      )}
    </div>
  );
}
