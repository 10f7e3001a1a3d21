/** Mixing two plans: for each part of the work, whose pieces are taken. */
import type { Piece, Plan } from "../api/types";

/** Parts of the work that are taken as one, each with the slots of a plan in it. */
export const PARTS = [
  ["Picture", ["picture"]],
  ["Kick", ["kick", "kick-two"]],
  ["Snare", ["snare", "snare-bottom"]],
  ["Toms", ["toms"]],
  ["Hats and ride", ["hats", "ride"]],
  ["Room", ["room-pair", "room-mono", "far", "odd"]],
] as const;

export type PartName = (typeof PARTS)[number][0];
export type Picks = Partial<Record<PartName, number>>;

/** The pieces of a plan that belong to a part. */
export function piecesOf(plan: Plan | undefined, part: PartName): Piece[] {
  const slots: readonly string[] = PARTS.find(([name]) => name === part)?.[1] ?? [];
  return (plan?.pieces ?? []).filter((p) => slots.includes(p.slot));
}

/** The parts that any of some plans has something for. */
export function partsIn(plans: readonly Plan[]): PartName[] {
  return PARTS.map(([name]) => name).filter((part) =>
    plans.some((plan) => piecesOf(plan, part).length > 0),
  );
}

/** The pieces of a mix, part after part; a part nobody was picked for comes from the first plan. */
export function mixed(plans: readonly Plan[], picks: Picks): Piece[] {
  return PARTS.flatMap(([part]) => {
    const from = picks[part] ?? 0;
    return from < 0 ? [] : piecesOf(plans[from], part);
  });
}
