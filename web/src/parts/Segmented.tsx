/** A few choices of which one holds. */
interface Props<T extends string> {
  label: string;
  value: T;
  options: readonly (readonly [T, string])[];
  onTake: (value: T) => void;
  small?: boolean;
}

export function Segmented<T extends string>({ label, value, options, onTake, small }: Props<T>) {
  return (
    <fieldset className="inline-flex flex-wrap overflow-hidden rounded-lg border border-hair bg-card">
      <legend className="sr-only">{label}</legend>
      {options.map(([key, text]) => (
        <button
          key={key}
          type="button"
          aria-pressed={key === value}
          onClick={() => onTake(key)}
          className={`${small ? "px-2 py-1 text-[0.8rem]" : "px-3 py-1.5 text-[0.88rem]"} font-semibold whitespace-nowrap ${key === value ? "bg-ink text-panel" : "text-soft hover:text-ink"}`}
        >
          {text}
        </button>
      ))}
    </fieldset>
  );
}
