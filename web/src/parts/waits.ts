/** Holding something back for what belongs above it, so that it does not move from under a hand. */
import { useEffect, useState } from "react";

const MOMENT_MS = 1000;

/** Whether what was first asked for is still worth waiting for: for a moment, and never again. */
export function useWaits(asked: boolean): boolean {
  const [over, end] = useState(false);
  const waits = asked && !over;
  useEffect(() => {
    if (!waits) return end(true);
    const clock = setTimeout(() => end(true), MOMENT_MS);
    return () => clearTimeout(clock);
  }, [waits]);
  return waits;
}
