/** What stands in a room by small steps: along its walls, and round. */
import { stepOf, stridesIn, wallWords } from "../../core/nudge";
import { TURN_STEP } from "../../parts/handSizes";
import { useMe } from "../../parts/me";
import { Nudge } from "../../parts/nudge/Nudge";

const DEGREES = Math.round((TURN_STEP * 180) / Math.PI);

interface Props {
  name: string;
  onStep: (x: number, y: number) => void;
  onTurn: (by: number) => void;
}

export function NudgeOnFloor({ name, onStep, onTurn }: Props) {
  return (
    <Nudge
      name={name}
      steps={stridesIn(useMe())}
      words={wallWords}
      onArrow={(way, by) => {
        const [x, y] = stepOf(way, by, "drummer");
        onStep(x, y);
      }}
      more={[
        [`Turn ${DEGREES}° left`, () => onTurn(TURN_STEP)],
        [`Turn ${DEGREES}° right`, () => onTurn(-TURN_STEP)],
      ]}
    />
  );
}
