/** Small steps for a thumb, where there are no arrow keys. */
import { ArrowDown, ArrowLeft, ArrowRight, ArrowUp } from "lucide-react";
import { useState } from "react";
import type { Mic } from "../../../api/types";
import { micOf } from "../../../core/edits";
import { nudged, stepsIn, type Way, wayWords } from "../../../core/nudge";
import { useEditor, useLit } from "../../../parts/editing";
import { Segmented } from "../../../parts/fields/Segmented";
import { useMe } from "../../../parts/me";
import { useMicHands } from "../micHands";

const ON_THE_PLAN = [
  ["left", ArrowLeft],
  ["up", ArrowUp],
  ["down", ArrowDown],
  ["right", ArrowRight],
] as const;
const SIZES = ["fine", "usual", "coarse"] as const;

export function Nudge({ mic }: { mic: Mic }) {
  const editor = useEditor();
  const { onNudge } = useMicHands();
  const { side } = useLit();
  const steps = stepsIn(useMe());
  const [size, setSize] = useState<(typeof SIZES)[number]>("usual");
  const by = steps[SIZES.indexOf(size)]?.[0] ?? 0;
  const go = (way: Way) => {
    const here = micOf(editor.snapshot().doc, mic.id)?.position_m ?? mic.position_m;
    onNudge(mic.id, nudged(here, way, by, side));
  };
  return (
    <fieldset className="hidden space-y-2 narrow:block pointer-coarse:block">
      <legend className="mb-1 text-[0.85rem] text-soft">
        Nudge {mic.id}, arrows as on the plan
      </legend>
      <Segmented
        small
        label="By how much"
        value={size}
        options={SIZES.map((name, n) => [name, steps[n]?.[1] ?? name] as const)}
        onTake={setSize}
      />
      <div className="flex flex-wrap gap-1.5">
        {ON_THE_PLAN.map(([way, Icon]) => (
          <button
            key={way}
            type="button"
            className="btn grid min-h-11 flex-1 place-items-center px-0"
            aria-label={wayWords(way, side)}
            onClick={() => go(way)}
          >
            <Icon size={18} aria-hidden="true" />
          </button>
        ))}
        {(["higher", "lower"] as const).map((way) => (
          <button
            key={way}
            type="button"
            className="btn min-h-11 px-2.5 text-[0.82rem]"
            onClick={() => go(way)}
          >
            {wayWords(way, side)}
          </button>
        ))}
      </div>
    </fieldset>
  );
}
