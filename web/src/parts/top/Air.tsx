/** The air of the room, which sets the speed of sound, and the rate, which sets the samples. */
import { Popover } from "radix-ui";
import { type FormEvent, useState } from "react";
import type { Layout } from "../../api/types";
import { useEditor, useEditorPart } from "../editing";
import { useTellEffects } from "../effects";
import { FormPick } from "../fields/Pick";

const RATES: Layout["sample_rate_hz"][] = [44100, 48000, 88200, 96000, 176400, 192000];
const USUAL_C = 20;

export function Air() {
  const celsius = useEditorPart((s) => s.doc.air?.temperature_c ?? USUAL_C);
  const speed = useEditorPart((s) => s.board?.speed_of_sound_m_s);
  const [open, setOpen] = useState(false);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger className="num rounded-md px-1.5 py-1 text-[0.85rem] whitespace-nowrap hover:bg-tint">
        <span className="sr-only">Change the air:</span>
        <strong>{celsius.toFixed(1)} °C</strong> {/* As wide before it is known. */}
        <span className={speed ? "text-soft" : "invisible"}>
          {speed?.toFixed(1) ?? "000.0"} m/s
        </span>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          className="z-50 w-64 rounded-card border border-hair bg-card p-3"
          sideOffset={6}
          aria-label="Air"
        >
          <AirForm onDone={() => setOpen(false)} />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** Take the air and the rate of a form, where either is another. */
function useTakeAir() {
  const editor = useEditor();
  const tell = useTellEffects();
  return (form: FormData) => {
    const { still } = editor.snapshot();
    const celsius = Number(form.get("celsius"));
    const rate = Number(form.get("rate")) as Layout["sample_rate_hz"];
    const damp = String(form.get("humidity")).trim();
    const air = { temperature_c: celsius, humidity_pct: damp === "" ? null : Number(damp) };
    const same =
      celsius === (still.air?.temperature_c ?? USUAL_C) &&
      air.humidity_pct === (still.air?.humidity_pct ?? null);
    if (!Number.isFinite(celsius) || (same && rate === still.sample_rate_hz)) return;
    const next = { ...still, air, sample_rate_hz: rate };
    editor.commit(next, `Air at ${celsius} °C, ${rate} Hz`);
    if (!same) void tell(still, next);
  };
}

function AirForm({ onDone }: { onDone: () => void }) {
  const { air, sample_rate_hz } = useEditor().snapshot().still;
  const take = useTakeAir();
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    onDone();
    take(new FormData(e.currentTarget));
  };
  return (
    <form onSubmit={submit} className="space-y-2">
      <Measured
        label="Temperature of the room, °C"
        name="celsius"
        step="0.1"
        range={[-20, 50]}
        value={air?.temperature_c ?? USUAL_C}
      />
      <Measured
        label="Relative humidity, %; empty when nobody measured it"
        name="humidity"
        step="1"
        range={[0, 100]}
        value={air?.humidity_pct ?? ""}
      />
      <p className="text-[0.8rem] text-soft">
        They set the speed of sound, and with it every arrival: 343.2·√(T / 293.15 K) m/s, ISO
        9613-1; with humidity from 0 to 30 °C, Cramer 1993.
      </p>
      <FormPick
        label="Session rate, Hz: sets the samples"
        name="rate"
        start={String(sample_rate_hz)}
        options={RATES.map(String)}
      />
      <button type="submit" className="btn w-full">
        Take it
      </button>
    </form>
  );
}

function Measured(props: {
  label: string;
  name: string;
  step: string;
  range: readonly [number, number];
  value: number | string;
}) {
  return (
    <label className="block">
      <span className="text-[0.85rem] text-soft">{props.label}</span>
      <input
        name={props.name}
        type="number"
        step={props.step}
        min={props.range[0]}
        max={props.range[1]}
        defaultValue={props.value}
        className="field num w-full"
      />
    </label>
  );
}
