/** What can be done to a layout: each edit makes a new one and leaves the old as it was. */
import type { Decision, Layout, Lock, Mic, Taken } from "../api/types";
import type { Point3 } from "./view";

export function micOf(layout: Layout, id: string): Mic | undefined {
  return layout.mics.find((m) => m.id === id);
}

export function withMic(layout: Layout, id: string, change: Partial<Mic>): Layout {
  return { ...layout, mics: layout.mics.map((m) => (m.id === id ? { ...m, ...change } : m)) };
}

export function placed(layout: Layout, id: string, at: Point3): Layout {
  const round = (x: number) => Math.round(x * 1e4) / 1e4 + 0;
  return withMic(layout, id, { position_m: [round(at[0]), round(at[1]), round(at[2])] });
}

/** Another short name for a mic: every mention of it follows. */
export function renamed(layout: Layout, id: string, to: string): Layout {
  const go = (x: string) => (x === id ? to : x);
  return {
    ...withMic(layout, id, { id: to }),
    stereo_pairs: layout.stereo_pairs.map((p) => ({ ...p, left: go(p.left), right: go(p.right) })),
    decisions: layout.decisions.map((d) => ({ ...d, a: go(d.a), b: go(d.b) })),
    order: (layout.order ?? []).map(go),
    techniques: (layout.techniques ?? []).map((t) => ({ ...t, mics: t.mics.map(go) })),
  };
}

export function freeName(layout: Layout, stem: string): string {
  const taken = new Set(layout.mics.map((m) => m.id));
  for (let n = 1; ; n++) if (!taken.has(`${stem}${n}`)) return `${stem}${n}`;
}

function freeChannel(layout: Layout): number {
  return Math.max(0, ...layout.mics.map((m) => m.channel ?? 0)) + 1;
}

/** A new mic a good step in front of the kit, aimed at the snare. */
export function added(layout: Layout): { layout: Layout; id: string } {
  const id = freeName(layout, "M");
  const mic: Mic = {
    id,
    name: "New mic",
    role: "room",
    job: null,
    pattern: "cardioid",
    position_m: [0.28, 1.6, 1.2],
    aim: [-0.15, -0.95, -0.28],
    locks: [],
    channel: freeChannel(layout),
    wired_inverted: false,
    cable_inverted: false,
    preamp_flip: false,
    track_flip: false,
    track_delay_samples: 0,
  };
  return { layout: { ...layout, mics: [...layout.mics, mic] }, id };
}

export function copied(layout: Layout, id: string): { layout: Layout; id: string } {
  const old = micOf(layout, id);
  if (!old) return { layout, id };
  const name = freeName(layout, id.replace(/\d+$/, "") || "M");
  const [x, y, z] = old.position_m;
  const mic: Mic = { ...old, id: name, position_m: [x + 0.1, y, z], channel: freeChannel(layout) };
  return { layout: { ...layout, mics: [...layout.mics, mic] }, id: name };
}

/**
 * Without a mic, its pairs and the decisions that name it; the others of its technique stand on
 * their own then.
 */
export function removed(layout: Layout, id: string): Layout {
  return {
    ...layout,
    mics: layout.mics.filter((m) => m.id !== id),
    stereo_pairs: layout.stereo_pairs.filter((p) => p.left !== id && p.right !== id),
    decisions: layout.decisions.filter((d) => d.a !== id && d.b !== id),
    techniques: (layout.techniques ?? []).filter((t) => !t.mics.includes(id)),
  };
}

/** The technique a mic belongs to. */
export function techniqueOf(layout: Layout, id: string): Taken | undefined {
  return (layout.techniques ?? []).find((t) => t.mics.includes(id));
}

/** With one lock of a mic put on or taken off. */
export function locked(layout: Layout, id: string, lock: Lock, on: boolean): Layout {
  const mic = micOf(layout, id);
  if (!mic) return layout;
  const others = (mic.locks ?? []).filter((l) => l !== lock);
  return withMic(layout, id, { locks: on ? [...others, lock] : others });
}

/** One number of a technique in use, and its mics where that number puts them. */
export function swept(
  layout: Layout,
  taken: string,
  number: string,
  value: number,
  stands: readonly { id: string; position_m: Point3; aim: Point3 }[],
): Layout {
  const at = new Map(stands.map((s) => [s.id, s]));
  return {
    ...layout,
    mics: layout.mics.map((m) => {
      const there = at.get(m.id);
      return there ? { ...m, position_m: [...there.position_m], aim: [...there.aim] } : m;
    }),
    techniques: (layout.techniques ?? []).map((t) =>
      t.id === taken ? { ...t, numbers: { ...t.numbers, [number]: value } } : t,
    ),
  };
}

export function partnerOf(layout: Layout, id: string): string | null {
  const pair = layout.stereo_pairs.find((p) => p.left === id || p.right === id);
  return pair ? (pair.left === id ? pair.right : pair.left) : null;
}

export function paired(layout: Layout, left: string, right: string, name: string): Layout {
  return {
    ...layout,
    stereo_pairs: [...layout.stereo_pairs, { name, left, right, coding: "left-right", width: 1 }],
  };
}

export function unpaired(layout: Layout, a: string, b: string): Layout {
  const both = new Set([a, b]);
  const stays = (p: { left: string; right: string }) => !(both.has(p.left) && both.has(p.right));
  return { ...layout, stereo_pairs: layout.stereo_pairs.filter(stays) };
}

type Stood = NonNullable<Decision["stood"]>;

export interface PairKey {
  a: string;
  b: string;
  source: string;
}

const isFor = (d: PairKey, k: PairKey) =>
  d.source === k.source && ((d.a === k.a && d.b === k.b) || (d.a === k.b && d.b === k.a));

export function decisionOn(layout: Layout, key: PairKey) {
  return layout.decisions.find((d) => isFor(d, key));
}

/** With a pair left on purpose, and how it stood then. */
export function decided(layout: Layout, key: PairKey, reason: string, stood: Stood): Layout {
  const others = layout.decisions.filter((d) => !isFor(d, key));
  return { ...layout, decisions: [...others, { ...key, reason, by: "", at: "", stood }] };
}

export function undecided(layout: Layout, key: PairKey): Layout {
  return { ...layout, decisions: layout.decisions.filter((d) => !isFor(d, key)) };
}
