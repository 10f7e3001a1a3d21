/** Short names for the generated types of the interface; nothing is typed by hand here. */
import type { components } from "./schema";

type S = components["schemas"];
export type Layout = S["Layout"];
export type Mic = S["Mic"];
export type Kit = S["Kit"];
export type Drum = S["Drum"];
export type Cymbal = S["Cymbal"];
export type Pattern = Mic["pattern"];
export type Role = Mic["role"];
export type Board = S["Board"];
export type Focus = S["Focus"];
export type PairRow = S["PairRow"];
export type Verdict = PairRow["verdict"];
export type Counts = S["Counts"];
export type Spot = S["Spot"];
export type LayoutOut = S["LayoutOut"];
export type Conflict = S["ConflictOut"];
export type Change = S["Change"];
export type SessionOut = S["SessionOut"];
export type LayoutRow = S["LayoutRow"];
export type Summary = S["Summary"];
export type Me = S["MeOut"];
export type Units = Me["units"];
export type Problem = S["Problem"];
export type StartIn = S["SessionIn"];
export type Starts = S["StartOut"];
