/** A length that is typed: shown in the chosen units, kept in metres, taken on Enter or leaving. */
import { useEffect, useId, useState } from "react";
import type { Units } from "../api/types";
import { lengthText, parseLength } from "../core/units";

interface Props {
  label: string;
  metres: number;
  units: Units;
  onTake: (metres: number) => void;
  hideLabel?: boolean;
}

export function LengthField({ label, metres, units, onTake, hideLabel }: Props) {
  const id = useId();
  const [text, setText] = useState(lengthText(metres, units));
  const [typing, setTyping] = useState(false);
  const [bad, setBad] = useState(false);
  useEffect(() => {
    if (!typing) setText(lengthText(metres, units));
  }, [metres, units, typing]);
  const take = () => {
    setTyping(false);
    if (text === lengthText(metres, units)) return;
    const value = parseLength(text, units);
    setBad(value === null);
    if (value === null) setTyping(true);
    else onTake(value);
  };
  return (
    <div className="min-w-0">
      <label htmlFor={id} className={hideLabel ? "sr-only" : "block text-[0.8rem] text-soft"}>
        {label}
        {units === "cm" ? ", cm" : ""}
      </label>
      <input
        id={id}
        className="field num w-full font-semibold"
        value={text}
        aria-invalid={bad}
        inputMode={units === "cm" ? "decimal" : "text"}
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
          {units === "cm" ? "Type centimetres, as 120.3" : "Type feet and inches, as 3' 11 3/8\""}
        </p>
      )}
    </div>
  );
}
