/** A few choices of which one holds. */
import { ToggleGroup } from "radix-ui";

interface Props<T extends string> {
  label: string;
  value: T;
  options: readonly (readonly [T, string])[];
  onTake: (value: T) => void;
  small?: boolean;
}

/** Focus is framed within: the frame round them all cuts off what is outside. */
const FOCUS =
  "focus-visible:outline-offset-[-4px] data-[state=on]:outline-panel data-[state=active]:outline-panel";
const SEGMENT =
  "font-semibold whitespace-nowrap text-soft hover:text-ink data-[state=on]:bg-ink data-[state=on]:text-panel data-[state=active]:bg-ink data-[state=active]:text-panel pointer-coarse:min-h-10";
export const SEGMENTS =
  "inline-flex flex-wrap overflow-hidden rounded-lg border border-hair bg-card";

export const segment = (small?: boolean) =>
  `${SEGMENT} ${FOCUS} ${small ? "px-2 py-1 text-[0.8rem]" : "px-3 py-1.5 text-[0.88rem]"}`;

export function Segmented<T extends string>({ label, value, options, onTake, small }: Props<T>) {
  return (
    <ToggleGroup.Root
      type="single"
      aria-label={label}
      value={value}
      onValueChange={(v) => v && onTake(v as T)}
      className={SEGMENTS}
    >
      {options.map(([key, text]) => (
        <ToggleGroup.Item key={key} value={key} className={segment(small)}>
          {text}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  );
}
