/** One drum or cymbal: size, place, lean, heads, port, damping, beater, fundamental. */
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { api, must } from "../../api/client";
import type { Drum, Head, Layout } from "../../api/types";
import { hzText, type Ruler, threeAcross } from "../../core/units";
import { axisOf, leanOf, type Point3 } from "../../core/view";
import { useEditorPart } from "../../parts/editing";
import { Choice, NumberField, TextField } from "../../parts/fields";
import { LengthField } from "../../parts/LengthField";
import { useMe } from "../../parts/me";
import { useToast } from "../../parts/toast";
import { at, centreOf, isDrum, type Part, useChangePart, useKitHands } from "./hands";

const INCH = 0.0254;
const DRUM_KINDS: Drum["kind"][] = ["kick", "snare", "rack", "floor", "hand drum"];
const CYMBAL_KINDS = ["hats", "crash", "ride", "splash", "china", "percussion"];
const DAMPING: NonNullable<Drum["damping"]> = [
  "gel pads",
  "ring",
  "towel",
  "blanket",
  "pillow",
  "weight",
];

export function PartPanel({ part, onGone }: { part: Part; onGone: () => void }) {
  const change = useChangePart();
  const hands = useKitHands();
  const ruler: Ruler = useMe();
  const doc = useEditorPart((s) => s.doc);
  const set = (more: Partial<Drum>) =>
    void change.take(part.id, (p) => ({ ...p, ...more }) as Part);
  const place = (axis: 0 | 1 | 2, metres: number) => {
    const to: [number, number, number] = [...(centreOf(part) as [number, number, number])];
    to[axis] = metres;
    void change.take(part.id, (p) => at(p, to));
  };
  const lean = leanOf(part.axis as Point3);
  const takeAway = async () => {
    if (await hands.commit(() => ({ do: "remove", id: part.id }))) onGone();
  };
  return (
    <div className="space-y-3.5">
      <h2 className="truncate text-[1.05rem]">{part.name}</h2>
      <div className="grid grid-cols-2 gap-2">
        <TextField
          label="Name"
          value={part.name}
          wrong="1 to 80 letters"
          onTake={(v) => {
            if (!v || v.length > 80) return false;
            set({ name: v });
            return true;
          }}
        />
        <Choice
          label="Kind"
          value={part.kind}
          options={isDrum(part) ? DRUM_KINDS : CYMBAL_KINDS}
          onTake={(v) => set({ kind: v as Drum["kind"], beater: null })}
        />
        <NumberField
          label="Size, inches"
          value={part.diameter_m / INCH}
          digits={1}
          low={4}
          high={39}
          onTake={(v) => set({ diameter_m: v * INCH })}
        />
        <LengthField
          label="Size"
          metres={part.diameter_m}
          ruler={ruler}
          onTake={(m) => set({ diameter_m: m })}
        />
        {isDrum(part) && (
          <>
            <NumberField
              label="Depth, inches"
              value={part.depth_m / INCH}
              digits={1}
              low={1.2}
              high={47}
              onTake={(v) => set({ depth_m: v * INCH })}
            />
            <LengthField
              label="Depth"
              metres={part.depth_m}
              ruler={ruler}
              onTake={(m) => set({ depth_m: m })}
            />
          </>
        )}
      </div>
      <div className={`grid ${threeAcross(ruler)} gap-2`}>
        {(["Right", "Front", "Height"] as const).map((name, i) => (
          <LengthField
            key={name}
            label={name}
            metres={centreOf(part)[i] ?? 0}
            ruler={ruler}
            onTake={(m) => place(i as 0 | 1 | 2, m)}
          />
        ))}
      </div>
      <div className="grid grid-cols-2 gap-2">
        <NumberField
          label="Leans, degrees"
          value={lean.tilt}
          digits={0}
          low={0}
          high={180}
          onTake={(v) => set({ axis: axisOf(v, lean.turn) })}
        />
        <NumberField
          label="Toward, degrees"
          value={lean.turn}
          digits={0}
          low={-180}
          high={360}
          onTake={(v) => set({ axis: axisOf(lean.tilt, v) })}
        />
      </div>
      <p className="text-[0.78rem] text-soft">
        0° toward the drummer, 90° toward the drummer's right.
      </p>
      {isDrum(part) && <DrumFields drum={part} doc={doc} set={set} />}
      <button type="button" className="btn w-full" onClick={() => void takeAway()}>
        Take {part.name} away
      </button>
    </div>
  );
}

const FINISHES: Head["finish"][] = ["clear", "coated", "mesh"];

function DrumFields(props: { drum: Drum; doc: Layout; set: (more: Partial<Drum>) => void }) {
  const { drum, set } = props;
  const kick = drum.kind === "kick";
  const damping = drum.damping ?? [];
  const far = drum.far_head ?? null;
  return (
    <>
      <Pitch drum={drum} onTake={(hz) => set({ fundamental_hz: hz })} />
      <HeadFields
        label="Struck head"
        head={drum.head ?? { finish: "coated", plies: 1 }}
        onTake={(head) => set({ head })}
      />
      <label className="flex items-center gap-2 text-[0.9rem]">
        <input
          type="checkbox"
          checked={far === null}
          onChange={(e) =>
            set(
              e.target.checked
                ? { far_head: null, port: null }
                : { far_head: { finish: "clear", plies: 1 } },
            )
          }
        />
        {kick ? "No front head" : "No bottom head"}
      </label>
      {far && (
        <HeadFields
          label={kick ? "Front head" : "Bottom head"}
          head={far}
          onTake={(head) => set({ far_head: head })}
        />
      )}
      {kick && far && <PortFields drum={drum} set={set} />}
      <fieldset className="text-[0.9rem]">
        <legend className="text-[0.8rem] text-soft">Damping</legend>
        <div className="grid grid-cols-2 gap-x-2">
          {DAMPING.map((d) => (
            <label key={d} className="flex items-center gap-1.5">
              <input
                type="checkbox"
                checked={damping.includes(d)}
                onChange={(e) =>
                  set({
                    damping: e.target.checked ? [...damping, d] : damping.filter((x) => x !== d),
                  })
                }
              />
              {d}
            </label>
          ))}
        </div>
      </fieldset>
      {kick && (
        <div className="grid grid-cols-2 gap-2">
          <Choice
            label="Beater"
            value={drum.beater ?? ""}
            options={["", "felt", "wood", "plastic"]}
            names={{ "": "not noted" }}
            onTake={(v) => set({ beater: (v || null) as Drum["beater"] })}
          />
          <Choice
            label="Tape is held at"
            value={drum.reference ?? "batter"}
            options={["batter", "front"]}
            names={{ batter: "the beater spot", front: "the front head" }}
            onTake={(v) => set({ reference: v as Drum["reference"] })}
          />
        </div>
      )}
    </>
  );
}

function HeadFields(props: { label: string; head: Head; onTake: (head: Head) => void }) {
  const { label, head, onTake } = props;
  return (
    <div className="grid grid-cols-2 gap-2">
      <Choice
        label={label}
        value={head.finish ?? "coated"}
        options={FINISHES as string[]}
        onTake={(v) => onTake({ ...head, finish: v as Head["finish"] })}
      />
      <Choice
        label="Plies"
        value={String(head.plies ?? 1)}
        options={["1", "2"]}
        names={{ "1": "single", "2": "double" }}
        onTake={(v) => onTake({ ...head, plies: Number(v) })}
      />
    </div>
  );
}

function PortFields({ drum, set }: { drum: Drum; set: (more: Partial<Drum>) => void }) {
  const ruler: Ruler = useMe();
  const port = drum.port ?? null;
  return (
    <>
      <label className="flex items-center gap-2 text-[0.9rem]">
        <input
          type="checkbox"
          checked={port !== null}
          onChange={(e) =>
            set({
              port: e.target.checked ? { diameter_m: 0.127, right_m: 0.12, up_m: 0 } : null,
            })
          }
        />
        Port hole
      </label>
      {port && (
        <div className={`grid ${threeAcross(ruler)} gap-2`}>
          <LengthField
            label="Hole"
            metres={port.diameter_m}
            ruler={ruler}
            onTake={(m) => set({ port: { ...port, diameter_m: m } })}
          />
          <LengthField
            label="Right"
            metres={port.right_m ?? 0}
            ruler={ruler}
            onTake={(m) => set({ port: { ...port, right_m: m } })}
          />
          <LengthField
            label="Up"
            metres={port.up_m ?? 0}
            ruler={ruler}
            onTake={(m) => set({ port: { ...port, up_m: m } })}
          />
        </div>
      )}
    </>
  );
}

/** The fundamental as hertz or a note; empty goes back to the estimate from size. */
function Pitch({ drum, onTake }: { drum: Drum; onTake: (hz: number | null) => void }) {
  const board = useEditorPart((s) => s.board);
  const say = useToast();
  const [text, setText] = useState<string | null>(null);
  const band = board?.sources.find((s) => s.id === drum.id);
  const known = drum.fundamental_hz ?? null;
  const find = useMutation({
    mutationFn: (typed: string) => must(api.POST("/api/kit/pitch", { body: { text: typed } })),
    onSuccess: ({ hz }) => {
      setText(null);
      onTake(hz);
    },
    onError: (e) => say(e.message),
  });
  const take = () => {
    if (text === null) return;
    if (text.trim() === "") {
      setText(null);
      if (known !== null) onTake(null);
    } else find.mutate(text);
  };
  return (
    <label className="block">
      <span className="text-[0.8rem] text-soft">Tuned to, Hz or a note</span>
      <input
        className="field num w-full font-semibold"
        value={text ?? (known ? known.toFixed(1) : "")}
        placeholder={band ? `estimate ${band.fundamental_hz.toFixed(0)}` : ""}
        onChange={(e) => setText(e.target.value)}
        onBlur={take}
        onKeyDown={(e) => e.key === "Enter" && take()}
      />
      {band && (
        <span className="text-[0.78rem] text-soft">
          Body is judged from {hzText(band.body_low_hz)} to {hzText(band.body_high_hz)}.
        </span>
      )}
    </label>
  );
}
