/**
 * The screens, each fetched when it is first needed: who signs in waits for no charts. Once a
 * layout is open the others come by themselves, so that changing the step waits for nothing.
 */
import { type ComponentType, lazy } from "react";

type Fetched = Promise<{ default: ComponentType }>;

/** The steps of the work, by their place in the address; the usual one first. */
const STEPS: Record<string, () => Fetched> = {
  place: async () => ({ default: (await import("./place/Place")).Place }),
  pairs: async () => ({ default: (await import("./pairs/Pairs")).Pairs }),
  kit: async () => ({ default: (await import("./kit/Kit")).Kit }),
  room: async () => ({ default: (await import("./room/Room")).Room }),
  brief: async () => ({ default: (await import("./brief/Brief")).Brief }),
  sheet: async () => ({ default: (await import("./sheet/Sheet")).Sheet }),
};
const shell = async () => ({ default: (await import("./LayoutShell")).LayoutShell });

export const LayoutShell = lazy(shell);
export const steps = Object.entries(STEPS).map(([at, fetch]) => ({ at, Screen: lazy(fetch) }));
export const SignIn = lazy(async () => ({ default: (await import("./account/SignIn")).SignIn }));
export const Account = lazy(async () => ({ default: (await import("./account/Account")).Account }));
export const Locker = lazy(async () => ({ default: (await import("./locker/Locker")).Locker }));
export const Sessions = lazy(async () => ({
  default: (await import("./sessions/Sessions")).Sessions,
}));

/** What does not come now is asked for again, and missed aloud, when it is shown. */
const tried = (fetch: () => Fetched) => fetch().catch(() => undefined);

/** One step after the other: the one that is shown goes first. */
export async function fetchAhead(): Promise<void> {
  for (const fetch of Object.values(STEPS)) await tried(fetch);
}

/** What an address shows comes while it is still asked who is there. */
export function fetchFor(address: string): void {
  const [, step = "place"] = /^\/layouts\/\d+\/?(\w+)?/.exec(address) ?? [null, ""];
  const fetch = STEPS[step];
  if (fetch) void Promise.all([tried(shell), tried(fetch)]);
}
