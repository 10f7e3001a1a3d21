/** Any of a few, each with a box to tick. */
import { Tick } from "./Tick";

interface Props<T extends string> {
  label: string;
  options: readonly T[];
  chosen: readonly T[];
  onTake: (chosen: T[]) => void;
}

export function Ticks<T extends string>({ label, options, chosen, onTake }: Props<T>) {
  return (
    <fieldset className="text-[0.9rem]">
      <legend className="text-[0.8rem] text-soft">{label}</legend>
      <div className="grid grid-cols-2 gap-x-2">
        {options.map((o) => (
          <Tick
            key={o}
            checked={chosen.includes(o)}
            onTake={(on) => onTake(options.filter((x) => (x === o ? on : chosen.includes(x))))}
          >
            {o}
          </Tick>
        ))}
      </div>
    </fieldset>
  );
}
