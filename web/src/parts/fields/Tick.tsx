/** A box to tick, with its words. */
import { Check } from "lucide-react";
import { Checkbox } from "radix-ui";
import type { ReactNode } from "react";

interface Props {
  checked: boolean;
  onTake: (on: boolean) => void;
  children: ReactNode;
  /** What a screen reader says where the words alone do not tell. */
  said?: string;
  className?: string;
}

export function Tick({ checked, onTake, children, said, className = "items-center" }: Props) {
  return (
    // biome-ignore lint/a11y/noLabelWithoutControl: the box within is a button, which a label labels
    <label className={`flex cursor-pointer gap-1.5 pointer-coarse:min-h-10 ${className}`}>
      <Checkbox.Root
        checked={checked}
        onCheckedChange={(now) => onTake(now === true)}
        aria-label={said}
        className="mt-[0.1em] grid size-4 shrink-0 place-items-center rounded-[4px] border border-soft bg-card data-[state=checked]:border-ink data-[state=checked]:bg-ink"
      >
        <Checkbox.Indicator>
          <Check size={12} strokeWidth={3.5} className="text-panel" />
        </Checkbox.Indicator>
      </Checkbox.Root>
      <span className="min-w-0">{children}</span>
    </label>
  );
}
