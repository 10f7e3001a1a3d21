/** What a mic model is, can be set to, and takes. */
import type { MicModel } from "../../api/types";
import { LengthFields } from "../../parts/fields/Lengths";
import { Pick } from "../../parts/fields/Pick";
import { Several } from "../../parts/fields/Several";
import { Tick } from "../../parts/fields/Tick";
import { Ticks } from "../../parts/fields/Ticks";
import { OptionalField } from "../../parts/fields/typed";

const PATTERNS: MicModel["patterns"] = [
  "omni",
  "wide cardioid",
  "cardioid",
  "supercardioid",
  "hypercardioid",
  "figure-8",
];
const FLAGS = [
  ["phantom", "wants phantom"],
  ["fragile", "fragile to air"],
  ["matched", "matched pairs"],
] as const;

/** Change some fields of a row. */
export type SetRow = (change: object) => void;

interface Props {
  row: MicModel;
  set: SetRow;
}

export function MicFields({ row, set }: Props) {
  return (
    <>
      <Pick
        label="Kind"
        value={row.kind}
        options={["moving-coil", "condenser", "ribbon", "boundary"]}
        onTake={(v) => set({ kind: v })}
      />
      <Ticks
        label="Patterns it can be set to"
        options={PATTERNS}
        chosen={row.patterns}
        onTake={(patterns) => patterns.length && set({ patterns })}
      />
      <div className="space-y-0.5 text-[0.9rem]">
        {FLAGS.map(([field, label]) => (
          <Tick key={field} checked={row[field]} onTake={(on) => set({ [field]: on })}>
            {label}
          </Tick>
        ))}
      </div>
      <MicNumbers row={row} set={set} />
    </>
  );
}

function MicNumbers({ row, set }: Props) {
  return (
    <div className="grid grid-cols-2 gap-2">
      <LengthFields
        rows={[["Capsule behind front", row.setback_m, (m) => set({ setback_m: m })]]}
      />
      <OptionalField
        label="Most it takes, dB SPL"
        value={row.max_spl_db ?? null}
        low={80}
        high={180}
        onTake={(v) => set({ max_spl_db: v })}
      />
      <OptionalField
        label="Sensitivity, mV/Pa"
        value={row.sensitivity_mv_pa ?? null}
        low={0.01}
        high={200}
        onTake={(v) => set({ sensitivity_mv_pa: v })}
      />
      <Several
        label="Pads, dB"
        values={row.pads_db}
        low={1}
        high={40}
        onTake={(v) => set({ pads_db: v })}
      />
      <Several
        label="Low cuts, Hz"
        values={row.low_cuts_hz}
        low={10}
        high={500}
        onTake={(v) => set({ low_cuts_hz: v })}
      />
    </div>
  );
}
