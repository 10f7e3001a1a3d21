/** A slider: `onShow` while it moves, `onTake` where it is let go of. */
import { Slider } from "radix-ui";
import { useRef } from "react";

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
  // By keys the slider tells what is let go of before it tells that it has moved there.
  const taken = useRef<number | null>(null);
  const moved = (v: number) => {
    if (taken.current !== v) onShow?.(v);
    taken.current = null;
  };
  const letGo = (v: number) => {
    taken.current = v;
    onTake(v);
  };
  return (
    <Slider.Root
      min={low}
      max={high}
      step={step}
      value={[value]}
      onValueChange={(all) => moved(first(all))}
      onValueCommit={(all) => letGo(first(all))}
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
