/** Choices, words and numbers that are typed; a wrong one is not taken and says what is. */
import { useState } from "react";

export function Choice(props: {
  label: string;
  value: string;
  options: string[];
  names?: Record<string, string>;
  onTake: (v: string) => void;
}) {
  return (
    <label className="block min-w-0">
      <span className="text-[0.8rem] text-soft">{props.label}</span>
      <select
        className="field w-full"
        value={props.value}
        onChange={(e) => props.onTake(e.target.value)}
      >
        {props.options.map((o) => (
          <option key={o} value={o}>
            {props.names?.[o] ?? o}
          </option>
        ))}
      </select>
    </label>
  );
}

export function TextField(props: {
  label: string;
  value: string;
  wrong: string;
  onTake: (v: string) => boolean;
}) {
  const [text, setText] = useState<string | null>(null);
  const [bad, setBad] = useState(false);
  const take = () => {
    if (text === null || text.trim() === props.value) return setText(null);
    const good = props.onTake(text.trim());
    setBad(!good);
    if (good) setText(null);
  };
  return (
    <label className="block min-w-0">
      <span className="text-[0.8rem] text-soft">{props.label}</span>
      <input
        className="field w-full"
        aria-invalid={bad}
        value={text ?? props.value}
        onChange={(e) => setText(e.target.value)}
        onBlur={take}
        onKeyDown={(e) => e.key === "Enter" && take()}
      />
      {bad && (
        <span role="alert" className="text-[0.8rem] text-hollow">
          Not taken: {props.wrong}
        </span>
      )}
    </label>
  );
}

/** A number with its unit in the label, taken on Enter or leaving. */
export function NumberField(props: {
  label: string;
  value: number;
  digits: number;
  low: number;
  high: number;
  onTake: (v: number) => void;
}) {
  const { label, value, digits, low, high, onTake } = props;
  return (
    <TextField
      label={label}
      value={value.toFixed(digits)}
      wrong={`${low} to ${high}`}
      onTake={(text) => {
        const n = Number(text.replace(",", ".").replace("−", "-"));
        if (text === "" || !Number.isFinite(n) || n < low || n > high) return false;
        onTake(n);
        return true;
      }}
    />
  );
}
