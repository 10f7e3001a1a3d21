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

interface Seen<F extends Facing = Facing> {
  facing: F;
  title: string;
  /** What turns to another view. */
  turn: ReactNode;
}

/** Any of them. */
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

/** One in height, beside the plan. */
export function useHeights(): Seen<Exclude<Facing, "above">> {
  const { side } = useLit();
  const [facing, setFacing] = useState<Exclude<Facing, "above">>("along");
  const other = facing === "along" ? "side" : "along";
  const turn = (
    <button
      type="button"
      className="btn px-2 py-0.5 text-[0.8rem]"
      onClick={() => setFacing(other)}
    >
      {other === "along" ? "Front" : "Side"}
    </button>
  );
  return { facing, title: titlesOf(side)[facing], turn };
}
