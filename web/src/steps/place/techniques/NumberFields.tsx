/** The named numbers of a technique: typed in the chosen ruler, or slid. */
import type { NumberRow } from "../../../api/types";
import { numberText, stepOf } from "../../../core/techniques";
import type { Ruler } from "../../../core/units";
import { NumberField } from "../../../parts/fields";
import { LengthField } from "../../../parts/LengthField";

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
      {rows.map((n) => {
        const value = values[n.id] ?? n.default;
        return (
          <div key={n.id} data-number={n.id}>
            <div className="grid grid-cols-[1fr_1fr] items-end gap-2">
              {n.unit === "m" ? (
                <LengthField
                  label={n.label}
                  metres={value}
                  ruler={ruler}
                  onTake={(m) => onTake(n.id, m, true)}
                />
              ) : (
                <NumberField
                  label={`${n.label}, ${SIGN[n.unit]}`}
                  value={value}
                  digits={DIGITS[n.unit]}
                  low={n.low}
                  high={n.high}
                  onTake={(v) => onTake(n.id, v, true)}
                />
              )}
              <input
                type="range"
                className="mb-2 w-full accent-(--ring)"
                aria-label={`${n.label}, slide`}
                aria-valuetext={numberText(value, n, ruler)}
                min={n.low}
                max={n.high}
                step={stepOf(n)}
                value={value}
                onChange={(e) => onTake(n.id, Number(e.target.value), false)}
                onPointerUp={(e) => onTake(n.id, Number(e.currentTarget.value), true)}
                onKeyUp={(e) => onTake(n.id, Number(e.currentTarget.value), true)}
              />
            </div>
            {n.hand && (
              <p className="text-[0.78rem] text-soft">
                starts at {n.hand}, {numberText(n.default, n, ruler)}
              </p>
            )}
          </div>
        );
      })}
    </div>
  );
}
