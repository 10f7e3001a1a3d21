/**
 * The screens, each fetched when it is first needed: who signs in waits for no charts. Once a
 * layout is open the others come by themselves, so that changing the step waits for nothing.
 *
 * Not with React's own lazy parts: those show that they are on their way for a third of a second at
 * least, also when they have come at once.
 */
import { type ComponentType, useEffect, useState } from "react";
import { letGo } from "../core/pressed";
import { pressed } from "../parts/pressed";

function piece(fetch: () => Promise<ComponentType>) {
  let Loaded: ComponentType | null = null;
  const come = async () => {
    Loaded ??= await fetch();
  };
  function Screen() {
    const [fault, setFault] = useState<unknown>(null);
    const [here, setHere] = useState(Loaded !== null);
    // Asked for also when it has come since this was drawn: else nobody would draw it again.
    useEffect(() => {
      if (!here) come().then(() => setHere(true), setFault);
    }, [here]);
    if (fault) throw fault;
    return Loaded ? <Loaded /> : <p className="p-8 text-soft">Opening…</p>;
  }
  /** Ahead of need: what does not come now is asked for again, and missed aloud, when shown. */
  const ahead = () => come().catch(() => undefined);
  return { Screen, ahead };
}

/** The steps of the work, by their place in the address; the usual one first. */
const STEPS = {
  place: piece(async () => (await import("./place/Place")).Place),
  patch: piece(async () => (await import("./patch/Patch")).Patch),
  pairs: piece(async () => (await import("./pairs/Pairs")).Pairs),
  kit: piece(async () => (await import("./kit/Kit")).Kit),
  room: piece(async () => (await import("./room/Room")).Room),
  brief: piece(async () => (await import("./brief/Brief")).Brief),
  sheet: piece(async () => (await import("./sheet/Sheet")).Sheet),
  tape: piece(async () => (await import("./tape/Tape")).Tape),
  hits: piece(async () => (await import("./hits/Hits")).Hits),
  log: piece(async () => (await import("./log/Log")).Log),
};
const shell = piece(async () => (await import("./LayoutShell")).LayoutShell);
const sessions = piece(async () => (await import("./sessions/Sessions")).Sessions);

export const steps = Object.entries(STEPS).map(([at, { Screen }]) => ({ at, Screen }));
export const LayoutShell = shell.Screen;
export const Sessions = sessions.Screen;
export const SignIn = piece(async () => (await import("./account/SignIn")).SignIn).Screen;
export const Account = piece(async () => (await import("./account/Account")).Account).Screen;
export const OnAPhone = piece(async () => (await import("./account/OnAPhone")).OnAPhone).Screen;
export const Locker = piece(async () => (await import("./locker/Locker")).Locker).Screen;

/** One step after the other, while no hand has hold of anything: to read one takes several frames. */
export async function fetchAhead(): Promise<void> {
  for (const { ahead } of Object.values(STEPS)) {
    await letGo(pressed);
    await ahead();
  }
}

/** What an address shows comes while it is still asked who is there. */
export function fetchFor(address: string): void {
  if (address === "/") void sessions.ahead();
  const found = /^\/layouts\/\d+\/?(\w+)?/.exec(address);
  if (!found) return;
  void shell.ahead();
  const shown = found[1] ?? "place"; // whatever somebody typed
  for (const [at, { ahead }] of Object.entries(STEPS)) if (at === shown) void ahead();
}
