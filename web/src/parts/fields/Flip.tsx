/** A switch that is on or off, as one is on a preamp. */
import { Switch } from "radix-ui";

interface Props {
  label: string;
  on: boolean;
  onTake: (on: boolean) => void;
}

export function Flip({ label, on, onTake }: Props) {
  return (
    // biome-ignore lint/a11y/noLabelWithoutControl: the switch within is a button, which a label labels
    <label className="flex cursor-pointer items-center gap-2 pointer-coarse:min-h-10">
      <Switch.Root
        checked={on}
        onCheckedChange={onTake}
        className="flex h-4 w-7 shrink-0 items-center rounded-full border border-soft bg-card px-0.5 data-[state=checked]:border-hollow data-[state=checked]:bg-hollow"
      >
        <Switch.Thumb className="size-2.5 rounded-full bg-soft transition-transform data-[state=checked]:translate-x-[0.7rem] data-[state=checked]:bg-panel" />
      </Switch.Root>
      {label}
    </label>
  );
}
