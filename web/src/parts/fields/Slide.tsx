/** A slider: `onShow` while it moves, `onTake` where it is let go of. */
import { Slider } from "radix-ui";

interface Props {
  label: string;
  /** The value in words, for a screen reader. */
  text?: string;
  low: number;
  high: number;
  step: number;
  value: number;
  onShow?: (v: number) => void;
  onTake: (v: number) => void;
  className?: string;
}

export function Slide(props: Props) {
  const { label, text, low, high, step, value, onShow, onTake, className = "w-full" } = props;
  const first = (all: number[]) => all[0] ?? value;
  return (
    <Slider.Root
      min={low}
      max={high}
      step={step}
      value={[value]}
      onValueChange={(all) => onShow?.(first(all))}
      onValueCommit={(all) => onTake(first(all))}
      className={`relative flex h-6 touch-none items-center select-none pointer-coarse:h-10 ${className}`}
    >
      <Slider.Track className="relative h-1.5 flex-1 rounded-full bg-hair">
        <Slider.Range className="absolute h-full rounded-full bg-ring" />
      </Slider.Track>
      <Slider.Thumb
        aria-label={label}
        aria-valuetext={text}
        className="block size-4 rounded-full border-2 border-panel bg-ring pointer-coarse:size-6"
      />
    </Slider.Root>
  );
}
