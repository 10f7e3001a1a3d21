/** One thing of the locker, field by field. */
import type { CableKind, InputBank, MicModel, StandModel } from "../../api/types";
import type { Ruler } from "../../core/units";
import { Choice, NumberField, TextField } from "../../parts/fields";
import { LengthField } from "../../parts/LengthField";
import { useMe } from "../../parts/me";
import type { Kind, Row } from "./rows";

interface Props {
  kind: Kind;
  row: Row;
  onTake: (row: Row) => void;
  onTakeOut: () => void;
}

export function Detail({ kind, row, onTake, onTakeOut }: Props) {
  const ruler: Ruler = useMe();
  const set = (change: object) => onTake({ ...row, ...change } as Row);
  return (
    <div className="space-y-3">
      <h2 className="text-[1.05rem]">{row.name}</h2>
      <div className="grid grid-cols-2 gap-2">
        <TextField
          label="Name"
          value={row.name}
          wrong="1 to 80 letters"
          onTake={(v) => {
            if (!v || v.length > 80) return false;
            set({ name: v });
            return true;
          }}
        />
        <NumberField
          label="How many"
          value={row.count}
          digits={0}
          low={kind === "inputs" ? 1 : 0}
          high={256}
          onTake={(v) => set({ count: Math.round(v) })}
        />
      </div>
      {kind === "mics" && <MicFields row={row as MicModel} set={set} />}
      {kind === "stands" && <StandFields row={row as StandModel} set={set} />}
      {kind === "inputs" && <InputFields row={row as InputBank} set={set} />}
      {kind === "cables" && (
        <LengthField
          label="Length"
          metres={(row as CableKind).length_m}
          ruler={ruler}
          onTake={(m) => set({ length_m: m })}
        />
      )}
      {"cost" in row && (
        <NumberField
          label="Cost of a day"
          value={row.cost}
          digits={2}
          low={0}
          high={1e6}
          onTake={(v) => set({ cost: v })}
        />
      )}
      <button type="button" className="btn w-full" onClick={onTakeOut}>
        Take {row.name} out
      </button>
    </div>
  );
}

const PATTERNS: MicModel["patterns"] = [
  "omni",
  "wide cardioid",
  "cardioid",
  "supercardioid",
  "hypercardioid",
  "figure-8",
];

type Set = (change: object) => void;

/** Numbers parted by spaces, as `10 20`; empty is none. */
function numbers(text: string, low: number, high: number): number[] | null {
  const found = text
    .split(/[\s;]+/)
    .filter(Boolean)
    .map((t) => Number(t.replace(",", ".")));
  return found.length <= 4 && found.every((n) => n >= low && n <= high) ? found : null;
}

function Optional(props: {
  label: string;
  value: number | null;
  low: number;
  high: number;
  onTake: (v: number | null) => void;
}) {
  const { label, value, low, high, onTake } = props;
  return (
    <TextField
      label={label}
      value={value === null ? "" : String(value)}
      wrong={`${low} to ${high}, or empty`}
      onTake={(text) => {
        const n = Number(text.replace(",", "."));
        if (text !== "" && !(n >= low && n <= high)) return false;
        onTake(text === "" ? null : n);
        return true;
      }}
    />
  );
}

function MicFields({ row, set }: { row: MicModel; set: Set }) {
  const ruler: Ruler = useMe();
  const flags = [
    ["phantom", "wants phantom"],
    ["fragile", "fragile to air"],
    ["matched", "matched pairs"],
  ] as const;
  const list = (label: string, field: "pads_db" | "low_cuts_hz", low: number, high: number) => (
    <TextField
      label={label}
      value={row[field].join(" ")}
      wrong={`up to four numbers, ${low} to ${high}`}
      onTake={(text) => {
        const found = numbers(text, low, high);
        if (!found) return false;
        set({ [field]: found });
        return true;
      }}
    />
  );
  return (
    <>
      <Choice
        label="Kind"
        value={row.kind}
        options={["moving-coil", "condenser", "ribbon", "boundary"]}
        onTake={(v) => set({ kind: v })}
      />
      <fieldset className="grid grid-cols-2 gap-x-2 text-[0.9rem]">
        <legend className="text-[0.8rem] text-soft">Patterns it can be set to</legend>
        {PATTERNS.map((p) => (
          <label key={p} className="flex items-center gap-1.5">
            <input
              type="checkbox"
              checked={row.patterns.includes(p)}
              onChange={(e) => {
                const next = PATTERNS.filter((x) =>
                  x === p ? e.target.checked : row.patterns.includes(x),
                );
                if (next.length) set({ patterns: next });
              }}
            />
            {p}
          </label>
        ))}
      </fieldset>
      <div className="space-y-0.5 text-[0.9rem]">
        {flags.map(([field, label]) => (
          <label key={field} className="flex items-center gap-1.5">
            <input
              type="checkbox"
              checked={row[field]}
              onChange={(e) => set({ [field]: e.target.checked })}
            />
            {label}
          </label>
        ))}
      </div>
      <div className="grid grid-cols-2 gap-2">
        <LengthField
          label="Capsule behind front"
          metres={row.setback_m}
          ruler={ruler}
          onTake={(m) => set({ setback_m: m })}
        />
        <Optional
          label="Most it takes, dB SPL"
          value={row.max_spl_db ?? null}
          low={80}
          high={180}
          onTake={(v) => set({ max_spl_db: v })}
        />
        <Optional
          label="Sensitivity, mV/Pa"
          value={row.sensitivity_mv_pa ?? null}
          low={0.01}
          high={200}
          onTake={(v) => set({ sensitivity_mv_pa: v })}
        />
        {list("Pads, dB", "pads_db", 1, 40)}
        {list("Low cuts, Hz", "low_cuts_hz", 10, 500)}
      </div>
    </>
  );
}

function StandFields({ row, set }: { row: StandModel; set: Set }) {
  const ruler: Ruler = useMe();
  return (
    <div className="grid grid-cols-2 gap-2">
      <LengthField
        label="Lowest clip"
        metres={row.low_m}
        ruler={ruler}
        onTake={(m) => set({ low_m: m })}
      />
      <LengthField
        label="Highest clip"
        metres={row.high_m}
        ruler={ruler}
        onTake={(m) => set({ high_m: m })}
      />
      <LengthField
        label="Boom reaches"
        metres={row.reach_m}
        ruler={ruler}
        onTake={(m) => set({ reach_m: m })}
      />
      <NumberField
        label="Weight, kg"
        value={row.weight_kg}
        digits={1}
        low={0}
        high={200}
        onTake={(v) => set({ weight_kg: v })}
      />
    </div>
  );
}

function InputFields({ row, set }: { row: InputBank; set: Set }) {
  return (
    <div className="grid grid-cols-2 gap-2">
      <Choice
        label="Phantom"
        value={row.phantom}
        options={["each", "bank", "none"]}
        names={{ each: "for each input", bank: "one switch for all", none: "none" }}
        onTake={(v) => set({ phantom: v })}
      />
      <Optional
        label="Most it takes, dBu"
        value={row.max_level_dbu ?? null}
        low={-40}
        high={40}
        onTake={(v) => set({ max_level_dbu: v })}
      />
    </div>
  );
}
