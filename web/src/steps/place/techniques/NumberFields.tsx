/** The named numbers of a technique: typed in the chosen ruler, or slid. */
import type { NumberRow } from "../../../api/types";
import { numberText, stepOf } from "../../../core/techniques";
import type { Ruler } from "../../../core/units";
import { LengthField } from "../../../parts/fields/LengthField";
import { Slide } from "../../../parts/fields/Slide";
import { NumberField } from "../../../parts/fields/typed";

const SIGN = { deg: "°", clock: "o'clock", share: "share" } as const;
const DIGITS = { deg: 0, clock: 1, share: 2 } as const;

interface Props {
  rows: NumberRow[];
  values: Record<string, number>;
  ruler: Ruler;
  /** While the slider moves `done` is false. */
  onTake: (id: string, value: number, done: boolean) => void;
}

export function NumberFields({ rows, values, ruler, onTake }: Props) {
  return (
    <div className="space-y-2">
      {rows.map((n) => (
        <OneNumber
          key={n.id}
          row={n}
          value={values[n.id] ?? n.default}
          ruler={ruler}
          onTake={(value, done) => onTake(n.id, value, done)}
        />
      ))}
    </div>
  );
}

interface One {
  row: NumberRow;
  value: number;
  ruler: Ruler;
  onTake: (value: number, done: boolean) => void;
}

function OneNumber({ row: n, value, ruler, onTake }: One) {
  return (
    <div data-number={n.id}>
      <div className="grid grid-cols-[1fr_1fr] items-end gap-2">
        <Typed row={n} value={value} ruler={ruler} onTake={onTake} />
        <Slide
          label={`${n.label}, slide`}
          text={numberText(value, n, ruler)}
          low={n.low}
          high={n.high}
          step={stepOf(n)}
          value={value}
          onShow={(v) => onTake(v, false)}
          onTake={(v) => onTake(v, true)}
          className="mb-1"
        />
      </div>
      {n.hand && (
        <p className="text-[0.78rem] text-soft">
          starts at {n.hand}, {numberText(n.default, n, ruler)}
        </p>
      )}
    </div>
  );
}

function Typed({ row: n, value, ruler, onTake }: One) {
  if (n.unit === "m")
    return (
      <LengthField label={n.label} metres={value} ruler={ruler} onTake={(m) => onTake(m, true)} />
    );
  return (
    <NumberField
      label={`${n.label}, ${SIGN[n.unit]}`}
      value={value}
      digits={DIGITS[n.unit]}
      low={n.low}
      high={n.high}
      onTake={(v) => onTake(v, true)}
    />
  );
}
