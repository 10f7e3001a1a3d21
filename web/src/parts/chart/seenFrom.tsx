/** Which of the views of a chart is shown, where there is room for one of them. */
import { type ReactNode, useState } from "react";
import type { Facing, Side } from "../../core/view";
import { useLit } from "../editing";
import { Segmented } from "../fields/Segmented";

/** What each view is called, which depends on who has left and right. */
export const titlesOf = (side: Side): Record<Facing, string> =>
  side === "drummer"
    ? { above: "From above", along: "From behind", side: "From the right" }
    : { above: "From above", along: "From the front", side: "From the left" };

interface Seen {
  facing: Facing;
  title: string;
  /** What turns to another view. */
  turn: ReactNode;
}

export function useSeenFrom(): Seen {
  const { side } = useLit();
  const [facing, setFacing] = useState<Facing>("above");
  const options = [
    ["above", "Above"],
    ["along", side === "drummer" ? "Behind" : "Front"],
    ["side", side === "drummer" ? "Right" : "Left"],
  ] as const;
  const turn = (
    <Segmented small label="Seen from" value={facing} options={options} onTake={setFacing} />
  );
  return { facing, title: titlesOf(side)[facing], turn };
}
