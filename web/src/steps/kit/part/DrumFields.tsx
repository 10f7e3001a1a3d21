/** What a drum has besides its place: pitch, heads, port, damping, beater. */
import type { Drum, Head } from "../../../api/types";
import { Lengths } from "../../../parts/fields/Lengths";
import { Pick } from "../../../parts/fields/Pick";
import { Tick } from "../../../parts/fields/Tick";
import { Ticks } from "../../../parts/fields/Ticks";
import { NumberField } from "../../../parts/fields/typed";
import { OneByOne, Space } from "../../../parts/Later";
import { Pitch } from "./Pitch";

const DAMPING: NonNullable<Drum["damping"]> = [
  "gel pads",
  "ring",
  "towel",
  "blanket",
  "pillow",
  "weight",
];
const FINISHES: NonNullable<Head["finish"]>[] = ["clear", "coated", "mesh"];
const USUAL_FAR: Head = { finish: "clear", plies: 1 };

/** Change some fields of a part. */
export type SetPart = (more: Partial<Drum>) => void;

interface Props {
  drum: Drum;
  set: SetPart;
}

export function DrumFields({ drum, set }: Props) {
  const kick = drum.kind === "kick";
  const far = drum.far_head ?? null;
  return (
    <OneByOne meanwhile={<Space />}>
      <Pitch drum={drum} onTake={(hz) => set({ fundamental_hz: hz })} />
      <HeadFields
        label="Struck head"
        head={drum.head ?? { finish: "coated", plies: 1 }}
        onTake={(head) => set({ head })}
      />
      <Tick
        className="items-center text-[0.9rem]"
        checked={far === null}
        onTake={(off) => set(off ? { far_head: null, port: null } : { far_head: USUAL_FAR })}
      >
        {kick ? "No front head" : "No bottom head"}
      </Tick>
      {far && (
        <HeadFields
          label={kick ? "Front head" : "Bottom head"}
          head={far}
          onTake={(head) => set({ far_head: head })}
        />
      )}
      {kick && far && <PortFields drum={drum} set={set} />}
      <Ticks
        label="Damping"
        options={DAMPING}
        chosen={drum.damping ?? []}
        onTake={(damping) => set({ damping })}
      />
      {kick && <KickFields drum={drum} set={set} />}
      {drum.kind === "snare" && <Wires drum={drum} set={set} />}
    </OneByOne>
  );
}

const DEG = 180 / Math.PI;

/** Which way the wires run: the bottom mic stands in line with them. */
function Wires({ drum, set }: Props) {
  const turn = drum.wires_rad ?? null;
  return (
    <div className="grid grid-cols-2 items-end gap-2">
      <NumberField
        label="Wires run, °"
        value={(turn ?? 0) * DEG}
        digits={0}
        low={-360}
        high={360}
        onTake={(v) => set({ wires_rad: v / DEG })}
      />
      <p className="pb-1 text-[0.8rem] text-soft">
        {turn === null
          ? "Not known yet: 0 is across, left to right."
          : "From the drummer's right, counter-clockwise; drag their end on the chart."}
      </p>
    </div>
  );
}

function HeadFields(props: { label: string; head: Head; onTake: (head: Head) => void }) {
  const { label, head, onTake } = props;
  return (
    <div className="grid grid-cols-2 gap-2">
      <Pick
        label={label}
        value={head.finish ?? "coated"}
        options={FINISHES}
        onTake={(v) => onTake({ ...head, finish: v as Head["finish"] })}
      />
      <Pick
        label="Plies"
        value={String(head.plies ?? 1)}
        options={["1", "2"]}
        names={{ "1": "single", "2": "double" }}
        onTake={(v) => onTake({ ...head, plies: Number(v) })}
      />
    </div>
  );
}

function PortFields({ drum, set }: Props) {
  const port = drum.port ?? null;
  return (
    <>
      <Tick
        className="items-center text-[0.9rem]"
        checked={port !== null}
        onTake={(on) => set({ port: on ? { diameter_m: 0.127, right_m: 0.12, up_m: 0 } : null })}
      >
        Port hole
      </Tick>
      {port && (
        <Lengths
          rows={[
            ["Hole", port.diameter_m, (m) => set({ port: { ...port, diameter_m: m } })],
            ["Right", port.right_m ?? 0, (m) => set({ port: { ...port, right_m: m } })],
            ["Up", port.up_m ?? 0, (m) => set({ port: { ...port, up_m: m } })],
          ]}
        />
      )}
    </>
  );
}

function KickFields({ drum, set }: Props) {
  return (
    <div className="grid grid-cols-2 gap-2">
      <Pick
        label="Beater"
        value={drum.beater ?? ""}
        options={["", "felt", "wood", "plastic"]}
        names={{ "": "not noted" }}
        onTake={(v) => set({ beater: (v || null) as Drum["beater"] })}
      />
      <Pick
        label="Tape is held at"
        value={drum.reference ?? "batter"}
        options={["batter", "front"]}
        names={{ batter: "the beater spot", front: "the front head" }}
        onTake={(v) => set({ reference: v as Drum["reference"] })}
      />
    </div>
  );
}
