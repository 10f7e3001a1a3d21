/** Numbers of a technique in use under the hand: shown while they slide, kept where let go of. */
import { useEffect, useState } from "react";
import type { Standing } from "../../../api/types";
import { useHands } from "../../../parts/hands";

type Numbers = Record<string, number>;

export function useNumbers(row: Standing) {
  const hands = useHands();
  // What the hand asked for and the core has not answered yet: a slider must not fall back.
  const [wanted, setWanted] = useState<Numbers>({});
  useEffect(() => () => hands.callOff(), [hands]);
  const change = (numbers: Numbers, done: boolean) => {
    setWanted((old) => ({ ...old, ...numbers }));
    const make = () => ({ do: "numbers" as const, taken: row.id, numbers });
    if (!done) return hands.preview(make);
    void hands.commit(make, { soon: true }).then((edited) =>
      setWanted((old) => {
        const unanswered = Object.entries(old).filter(([id, v]) => numbers[id] !== v);
        return edited ? Object.fromEntries(unanswered) : {};
      }),
    );
  };
  return { wanted, change };
}
