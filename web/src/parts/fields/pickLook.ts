/** What a list is given and how it looks, whether it is short or searched. */
export interface PickProps {
  label: string;
  value: string;
  options: readonly string[];
  names?: Record<string, string>;
  onTake: (v: string) => void;
  /** The label is only for screen readers. */
  hideLabel?: boolean;
  className?: string;
  disabled?: boolean;
  /** Shown while nothing is chosen: the list is then a menu of things to do. */
  placeholder?: string;
}

export const FIELD =
  "field flex items-center justify-between gap-1 px-2 text-left data-[placeholder]:text-soft";
export const LIST =
  "z-[60] max-h-[min(24rem,var(--radix-popper-available-height))] min-w-[max(var(--radix-popper-anchor-width),8rem)] overflow-hidden rounded-card border border-hair bg-card p-1";
export const OPTION =
  "flex min-h-8 cursor-pointer items-center justify-between gap-3 rounded-md px-2 py-1 text-[0.88rem] outline-none pointer-coarse:min-h-10";
