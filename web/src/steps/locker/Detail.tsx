/** One thing of the locker, field by field. */
import type { CableKind, InputBank, MicModel, StandModel } from "../../api/types";
import { LengthFields } from "../../parts/fields/Lengths";
import { Pick } from "../../parts/fields/Pick";
import { Several } from "../../parts/fields/Several";
import { Tick } from "../../parts/fields/Tick";
import { NameField, NumberField, OptionalField } from "../../parts/fields/typed";
import { MicFields, type SetRow } from "./MicFields";
import type { Kind, Row } from "./rows";

interface Props {
  kind: Kind;
  row: Row;
  onTake: (row: Row) => void;
  onTakeOut: () => void;
}

export function Detail({ kind, row, onTake, onTakeOut }: Props) {
  const set: SetRow = (change) => onTake({ ...row, ...change } as Row);
  return (
    <div className="space-y-3">
      <h2 className="text-[1.05rem]">{row.name}</h2>
      <div className="grid grid-cols-2 gap-2">
        <NameField label="Name" value={row.name} onTake={(name) => set({ name })} />
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
        <LengthFields
          rows={[["Length", (row as CableKind).length_m, (m) => set({ length_m: m })]]}
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

function StandFields({ row, set }: { row: StandModel; set: SetRow }) {
  return (
    <div className="grid grid-cols-2 gap-2">
      <LengthFields
        rows={[
          ["Lowest clip", row.low_m, (m) => set({ low_m: m })],
          ["Highest clip", row.high_m, (m) => set({ high_m: m })],
          ["Boom reaches", row.reach_m, (m) => set({ reach_m: m })],
        ]}
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

function InputFields({ row, set }: { row: InputBank; set: SetRow }) {
  return (
    <div className="grid grid-cols-2 gap-2">
      <Pick
        label="Phantom"
        value={row.phantom}
        options={["each", "bank", "none"]}
        names={{ each: "for each input", bank: "one switch for all", none: "none" }}
        onTake={(v) => set({ phantom: v })}
      />
      <OptionalField
        label="Most it takes, dBu"
        value={row.max_level_dbu ?? null}
        low={-40}
        high={40}
        onTake={(v) => set({ max_level_dbu: v })}
      />
      <OptionalField
        label="Full at no gain, dBu"
        value={row.full_scale_dbu ?? null}
        low={-20}
        high={40}
        onTake={(v) => set({ full_scale_dbu: v })}
      />
      <OptionalField
        label="Most gain, dB"
        value={row.most_gain_db ?? null}
        low={0}
        high={100}
        onTake={(v) => set({ most_gain_db: v })}
      />
      <OptionalField
        label="Its own noise, dBu"
        value={row.noise_dbu ?? null}
        low={-140}
        high={-60}
        onTake={(v) => set({ noise_dbu: v })}
      />
      <Several
        label="Pads, dB"
        values={row.pads_db}
        low={1}
        high={60}
        onTake={(v) => set({ pads_db: v })}
      />
      <Tick className="self-end" checked={row.matched} onTake={(on) => set({ matched: on })}>
        all matched
      </Tick>
    </div>
  );
}
