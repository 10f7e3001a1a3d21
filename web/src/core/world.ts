/** What an open layout needs of the world, so that it can be tested without one. */
import type { Board, Conflict, Follows, Layout, LayoutOut } from "../api/types";
import type { FocusKey, Move } from "./following";
import type { Parcel } from "./outbox";

/** What an error means for what was on its way. */
export type Fate = "refused" | "conflict" | "stranger" | "gone" | "away";
export type Way = "undo" | "redo";

export interface Wire {
  compute(layout: Layout, focus: FocusKey | null): Promise<Board>;
  follow(move: Move): Promise<Follows>;
  save(id: number, parcel: Parcel): Promise<LayoutOut>;
  step(id: number, version: number, way: Way, key: string): Promise<LayoutOut>;
  fateOf(error: unknown): Fate;
  /** The conflict an error of that fate carries. */
  conflictOf(error: unknown): Conflict;
}
