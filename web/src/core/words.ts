/** Names and marks that more than one drawing uses. */
import type { Drum, Layout, Mic, PairRow, Verdict } from "../api/types";
import { channelOf } from "./edits";

export const VERDICTS: Verdict[] = [
  "together",
  "late",
  "hollow",
  "ask the ear",
  "behind",
  "no matter",
];

/** What each verdict means, for whoever points at it. */
export const MEANING: Record<Verdict, string> = {
  together: "No dip in the band that counts for the pair",
  late: "A dip of the sum lies inside the band that counts, or a second stroke is heard",
  behind: "Further away, and heard as distance: nothing to mend",
  hollow: "Flipping one mic gains so much body that it is heard at once",
  "ask the ear": "The sign cannot be planned, and a flip would be heard",
  "no matter": "What the two can take from the drum is not heard in this balance",
};

/** So many of something that takes an s. */
export const counted = (count: number, of: string) => `${count} ${of}${count === 1 ? "" : "s"}`;

export const micsInWords = (count: number) => counted(count, "mic");

/** The colour token of a mic: by the drum it is put up for, or by its role. */
export function micColour(mic: Mic, layout: Layout): string {
  if (mic.role === "overhead") return "var(--ring)";
  if (mic.role === "room") return "var(--room)";
  const drum = layout.kit.drums.find((d) => d.id === mic.job);
  if (!drum) return "var(--cymbal)";
  return drumColour(drum.kind);
}

export function drumColour(kind: Drum["kind"]): string {
  if (kind === "snare") return "var(--snare)";
  if (kind === "kick") return "var(--kick)";
  return "var(--tom)";
}

export const TRACK_SWITCHES = [
  ["preamp_flip", "Flip at the preamp"],
  ["track_flip", "Flip on the track"],
] as const;

export const MIC_SWITCHES = [
  ["cable_inverted", "Inverting cable"],
  ["wired_inverted", "Mic wired inverted"],
] as const;

/** Whether an odd number of inversions lie between a mic's capsule and its first track. */
export function isFlipped(mic: Mic, layout: Layout): boolean {
  const track = channelOf(layout, mic.id);
  const on = [
    ...MIC_SWITCHES.map(([key]) => mic[key]),
    ...TRACK_SWITCHES.map(([key]) => track?.[key]),
  ];
  return on.filter(Boolean).length % 2 === 1;
}

/** The first drum of a kind: the reference the tapes are held to. */
export function firstDrum(layout: Pick<Layout, "kit">, kind: "snare" | "kick"): Drum {
  return layout.kit.drums.find((d) => d.kind === kind) as Drum;
}

/** A name within a sentence: its first letter is small, unless it is written in capitals. */
export const spoken = (name: string) =>
  /^.\p{Lu}/u.test(name) ? name : name.slice(0, 1).toLowerCase() + name.slice(1);

/** A drum with its article, but for those that are counted, and what has one already. */
export const the = (name: string) =>
  /^(the |[^,]*\d(,|$))/.test(name) ? spoken(name) : `the ${spoken(name)}`;

export function sourceName(layout: Layout, id: string): string {
  const all = [...layout.kit.drums, ...(layout.kit.cymbals ?? [])];
  return all.find((s) => s.id === id)?.name ?? id;
}

/** The two body sums with what they are; which is which stays open while the sign is unsure. */
export function bodySums(row: PairRow): { name: string; db: number }[] {
  if (row.sign !== 0)
    return [
      { name: "body as wired", db: row.body_db },
      { name: "body with one flipped", db: row.flipped_body_db },
    ];
  return [
    { name: "body, the fuller way", db: Math.max(row.body_db, row.flipped_body_db) },
    { name: "body, the other way", db: Math.min(row.body_db, row.flipped_body_db) },
  ];
}
