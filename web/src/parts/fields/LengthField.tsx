/** A length that is typed: shown in the chosen ruler, kept in metres, taken on Enter or leaving. */
import { type Ref, useId, useState } from "react";
import { howToType, lengthText, parseLength, type Ruler, unitMark } from "../../core/units";
import { typing } from "../Live";

interface Props {
  label: string;
  metres: number;
  ruler: Ruler;
  onTake: (metres: number) => void;
  hideLabel?: boolean;
  field?: Ref<HTMLInputElement>;
}

export function LengthField({ label, metres, ruler, onTake, hideLabel, field }: Props) {
  const id = useId();
  const [typed, setTyped] = useState<string | null>(null);
  const [bad, setBad] = useState(false);
  const now = lengthText(metres, ruler);
  const leave = () => {
    setTyped(null);
    setBad(false);
  };
  const take = () => {
    if (typed === null || typed === now) return leave();
    const value = parseLength(typed, ruler);
    if (value === null) return setBad(true);
    leave();
    onTake(value);
  };
  return (
    <div className="min-w-0">
      <label htmlFor={id} className={hideLabel ? "sr-only" : "block text-[0.8rem] text-soft"}>
        {label}
        {unitMark(ruler)}
      </label>
      <input
        id={id}
        ref={field}
        {...typing(typed !== null)}
        className="field num w-full font-semibold"
        value={typed ?? now}
        aria-invalid={bad}
        inputMode={ruler.units === "cm" ? "decimal" : "text"}
        onChange={(e) => setTyped(e.target.value)}
        onBlur={take}
        onKeyDown={(e) => {
          if (e.key === "Enter") take();
          if (e.key === "Escape") leave();
        }}
      />
      {bad && (
        <p role="alert" className="text-[0.8rem] text-hollow">
          {howToType(ruler)}
        </p>
      )}
    </div>
  );
}
