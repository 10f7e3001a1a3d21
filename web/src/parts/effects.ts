/** After a change of the whole: what turned over, said where everybody sees it. */
import { useCallback } from "react";
import { api, exactly } from "../api/client";
import type { Effects, Layout } from "../api/types";
import { useToast } from "./toast";

export function askEffects(before: Layout, after: Layout): Promise<Effects> {
  return exactly<Effects>(api.POST("/api/effects", { body: { before, after } }));
}

/** Ask what a change did and say it; silent when the server is away, for the top bar says so. */
export function useTellEffects() {
  const say = useToast();
  return useCallback(
    async (before: Layout, after: Layout) => {
      try {
        say((await askEffects(before, after)).words);
      } catch {
        // The save that goes with it tells about a refusal or a lost connection.
      }
    },
    [say],
  );
}
