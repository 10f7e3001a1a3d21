/** The screen stays on while somebody measures, where the browser gives that. */
import { useEffect } from "react";

export function useWakeLock(): void {
  useEffect(() => {
    let held: WakeLockSentinel | null = null;
    let left = false;
    const hold = async () => {
      if (document.visibilityState !== "visible") return;
      try {
        held = (await navigator.wakeLock?.request("screen")) ?? null;
        if (left) await held?.release();
      } catch {
        // Not given: the battery is low, or the page is not allowed to.
      }
    };
    void hold();
    document.addEventListener("visibilitychange", hold);
    return () => {
      left = true;
      document.removeEventListener("visibilitychange", hold);
      void held?.release();
    };
  }, []);
}
