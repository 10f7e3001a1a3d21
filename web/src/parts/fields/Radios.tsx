/** One of a few, each with its own words about it. */
import { RadioGroup } from "radix-ui";

interface Props {
  label: string;
  value: string;
  options: readonly (readonly [value: string, about: string])[];
  onTake: (v: string) => void;
}

export function Radios({ label, value, options, onTake }: Props) {
  return (
    <RadioGroup.Root aria-label={label} value={value} onValueChange={onTake} className="space-y-1">
      {options.map(([name, about]) => (
        // biome-ignore lint/a11y/noLabelWithoutControl: the button within is what the label labels
        <label key={name} className="flex cursor-pointer gap-2 pointer-coarse:min-h-10">
          <Radio value={name} />
          <span>
            <strong>{name}</strong> <span className="text-soft">{about}</span>
          </span>
        </label>
      ))}
    </RadioGroup.Root>
  );
}

/** One button of a group. */
export function Radio({ value, said }: { value: string; said?: string }) {
  return (
    <RadioGroup.Item
      value={value}
      aria-label={said}
      className="mt-1 grid size-4 shrink-0 place-items-center rounded-full border border-soft bg-card data-[state=checked]:border-ink"
    >
      <RadioGroup.Indicator className="size-2 rounded-full bg-ink" />
    </RadioGroup.Item>
  );
}
