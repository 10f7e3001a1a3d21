/** A mic by small steps. */
import type { Mic } from "../../../api/types";
import { micOf } from "../../../core/edits";
import { nudged, stepsIn, type Way, wayWords } from "../../../core/nudge";
import { useEditor, useLit } from "../../../parts/editing";
import { useMe } from "../../../parts/me";
import { Nudge } from "../../../parts/nudge/Nudge";
import { useMicHands } from "../micHands";

export function MicNudge({ mic }: { mic: Mic }) {
  const editor = useEditor();
  const { onNudge } = useMicHands();
  const { side } = useLit();
  const go = (way: Way, by: number) => {
    const here = micOf(editor.snapshot().doc, mic.id)?.position_m ?? mic.position_m;
    onNudge(mic.id, nudged(here, way, by, side));
  };
  return (
    <Nudge
      name={mic.id}
      steps={stepsIn(useMe())}
      words={(way) => wayWords(way, side)}
      onArrow={go}
      more={(["higher", "lower"] as const).map(
        (way) => [wayWords(way, side), (by: number) => go(way, by)] as const,
      )}
    />
  );
}
