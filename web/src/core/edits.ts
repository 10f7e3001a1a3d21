/**
 * What is read of a layout, and the few changes that are only shown: a mic under the hand, a
 * remedy on trial, a slider that moves. What is kept goes through the core's edits.
 */
import type { Channel, Layout, Mic, Remedy, Taken } from "../api/types";
import type { Point3 } from "./view";

export function micOf(layout: Layout, id: string): Mic | undefined {
  return layout.mics.find((m) => m.id === id);
}

/** The layout with the mics of those names replaced. */
export function withMics(layout: Layout, mics: readonly Mic[]): Layout {
  const fresh = new Map(mics.map((m) => [m.id, m]));
  return { ...layout, mics: layout.mics.map((m) => fresh.get(m.id) ?? m) };
}

/** The layout with some fields of a mic changed. */
export function withMic(layout: Layout, id: string, change: Partial<Mic>): Layout {
  const mic = micOf(layout, id);
  return mic ? withMics(layout, [{ ...mic, ...change }]) : layout;
}

/** The tracks a mic feeds, in their order. */
export function channelsOf(layout: Layout, mic: string): Channel[] {
  return (layout.channels ?? []).filter((c) => c.mic === mic);
}

/** The track a mic is meant by: its first. */
export function channelOf(layout: Layout, mic: string): Channel | undefined {
  return layout.channels?.find((c) => c.mic === mic);
}

/** The layout with the channels of those names replaced. */
export function withChannels(layout: Layout, channels: readonly Channel[]): Layout {
  const fresh = new Map(channels.map((c) => [c.id, c]));
  return { ...layout, channels: (layout.channels ?? []).map((c) => fresh.get(c.id) ?? c) };
}

/** The mics a remedy changes, by short name. */
export function remedied(remedy: Pick<Remedy, "mics" | "channels">): string[] {
  const names = [...remedy.mics.map((m) => m.id), ...remedy.channels.map((c) => c.mic)];
  return [...new Set(names)];
}

/** The technique a mic belongs to. */
export function techniqueOf(layout: Layout, id: string): Taken | undefined {
  return (layout.techniques ?? []).find((t) => t.mics.includes(id));
}

/** One number of a technique in use as it would be, and its mics where that number puts them. */
export function swept(
  layout: Layout,
  taken: string,
  number: string,
  value: number,
  stands: readonly { id: string; position_m: Point3; aim: Point3 }[],
): Layout {
  const mics = stands.flatMap((s) => {
    const mic = micOf(layout, s.id);
    return mic ? [{ ...mic, position_m: [...s.position_m], aim: [...s.aim] } as Mic] : [];
  });
  return {
    ...withMics(layout, mics),
    techniques: (layout.techniques ?? []).map((t) =>
      t.id === taken ? { ...t, numbers: { ...t.numbers, [number]: value } } : t,
    ),
  };
}

export function partnerOf(layout: Layout, id: string): string | null {
  const pair = layout.stereo_pairs.find((p) => p.left === id || p.right === id);
  return pair ? (pair.left === id ? pair.right : pair.left) : null;
}

export interface PairKey {
  a: string;
  b: string;
  source: string;
}

export function decisionOn(layout: Layout, key: PairKey) {
  return layout.decisions.find(
    (d) =>
      d.source === key.source &&
      ((d.a === key.a && d.b === key.b) || (d.a === key.b && d.b === key.a)),
  );
}
