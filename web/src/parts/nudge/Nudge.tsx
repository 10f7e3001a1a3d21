/** Small steps for a thumb, where there are no arrow keys. */
import { ArrowDown, ArrowLeft, ArrowRight, ArrowUp } from "lucide-react";
import { useState } from "react";
import type { Arrow, Step } from "../../core/nudge";
import { Segmented } from "../fields/Segmented";
import { useHeld } from "./held";

const ON_THE_PLAN = [
  ["left", ArrowLeft],
  ["up", ArrowUp],
  ["down", ArrowDown],
  ["right", ArrowRight],
] as const;
const SIZES = ["fine", "usual", "coarse"] as const;

interface Props {
  /** What is moved. */
  name: string;
  steps: readonly Step[];
  /** Each arrow for somebody who does not see the plan. */
  words: (way: Arrow) => string;
  onArrow: (way: Arrow, by: number) => void;
  /** What else it can be moved by: in height, or round. */
  more: readonly (readonly [words: string, go: (by: number) => void])[];
}

export function Nudge({ name, steps, words, onArrow, more }: Props) {
  const [size, setSize] = useState<(typeof SIZES)[number]>("usual");
  const by = steps[SIZES.indexOf(size)]?.[0] ?? 0;
  return (
    <fieldset className="hidden space-y-2 narrow:block pointer-coarse:block">
      <legend className="mb-1 text-[0.85rem] text-soft">Nudge {name}, arrows as on the plan</legend>
      <Segmented
        small
        label="By how much"
        value={size}
        options={SIZES.map((one, n) => [one, steps[n]?.[1] ?? one] as const)}
        onTake={setSize}
      />
      <div className="flex flex-wrap gap-1.5">
        {ON_THE_PLAN.map(([way, Icon]) => (
          <Held key={way} words={words(way)} onStep={() => onArrow(way, by)}>
            <Icon size={18} aria-hidden="true" />
          </Held>
        ))}
        {more.map(([said, go]) => (
          <Held key={said} words={said} onStep={() => go(by)} />
        ))}
      </div>
    </fieldset>
  );
}

/** One way; it goes on while it is held. */
function Held(props: { words: string; onStep: () => void; children?: React.ReactNode }) {
  const listens = useHeld(props.onStep);
  const { words, children } = props;
  return (
    <button
      type="button"
      {...listens}
      aria-label={children ? words : undefined}
      className={`btn min-h-11 touch-manipulation select-none ${
        children ? "grid flex-1 place-items-center px-0" : "px-2.5 text-[0.82rem]"
      }`}
    >
      {children ?? words}
    </button>
  );
}
