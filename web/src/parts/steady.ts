/** What is given anew each time and is still the same, so that nothing is drawn anew for it. */
import { useCallback, useLayoutEffect, useRef } from "react";
import { sameWhereEqual } from "../core/same";

/** One function for good, which does what was given last. */
export function useSteady<A extends unknown[], R>(does: (...given: A) => R): (...given: A) => R {
  const now = useRef(does);
  useLayoutEffect(() => {
    now.current = does;
  });
  return useCallback((...given: A) => now.current(...given), []);
}

/** Whether all that is given says the same, lists and records by what is in them. */
export const saysTheSame = <T>(was: T, now: T) => sameWhereEqual(was, now) === was;
