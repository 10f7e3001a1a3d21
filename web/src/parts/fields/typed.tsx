/** Words and numbers that are typed; a wrong one is not taken and says what is. */
import { useState } from "react";

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
      <span className="block text-[0.8rem] text-soft">{props.label}</span>
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

/** A name of 1 to 80 letters. */
export function NameField(props: { label: string; value: string; onTake: (v: string) => void }) {
  return (
    <TextField
      label={props.label}
      value={props.value}
      wrong="1 to 80 letters"
      onTake={(v) => {
        if (!v || v.length > 80) return false;
        props.onTake(v);
        return true;
      }}
    />
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

/** A number that nobody need know: empty is none. */
export function OptionalField(props: {
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
