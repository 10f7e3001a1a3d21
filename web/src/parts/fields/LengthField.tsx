/** A length that is typed: shown in the chosen ruler, kept in metres, taken on Enter or leaving. */
import { useEffect, useId, useState } from "react";

import { howToType, lengthText, parseLength, type Ruler, unitMark } from "../../core/units";

interface Props {
  label: string;
  metres: number;
  ruler: Ruler;
  onTake: (metres: number) => void;
  hideLabel?: boolean;
}

export function LengthField({ label, metres, ruler, onTake, hideLabel }: Props) {
  const id = useId();
  const [text, setText] = useState(lengthText(metres, ruler));
  const [typing, setTyping] = useState(false);
  const [bad, setBad] = useState(false);
  useEffect(() => {
    if (!typing) setText(lengthText(metres, ruler));
  }, [metres, ruler, typing]);
  const take = () => {
    setTyping(false);
    if (text === lengthText(metres, ruler)) return;
    const value = parseLength(text, ruler);
    setBad(value === null);
    if (value === null) setTyping(true);
    else onTake(value);
  };
  return (
    <div className="min-w-0">
      <label htmlFor={id} className={hideLabel ? "sr-only" : "block text-[0.8rem] text-soft"}>
        {label}
        {unitMark(ruler)}
      </label>
      <input
        id={id}
        className="field num w-full font-semibold"
        value={text}
        aria-invalid={bad}
        inputMode={ruler.units === "cm" ? "decimal" : "text"}
        onChange={(e) => {
          setTyping(true);
          setText(e.target.value);
        }}
        onBlur={take}
        onKeyDown={(e) => {
          if (e.key === "Enter") take();
          if (e.key === "Escape") {
            setTyping(false);
            setBad(false);
          }
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
