/**
 * The flag of a mic under the hand goes along its tape with every answer, on a sheet of its own;
 * the tapes are drawn anew when the hand rests, or under it where they have to grow.
 */
import { type RefObject, useLayoutEffect, useState } from "react";
import type { Board } from "../../api/types";
import { apart } from "../../core/apart";
import { frames } from "../../core/frames";
import {
  type Box,
  boundsOf,
  copied,
  inSight,
  moveSheet,
  outOfSight,
  type Sheet,
  sheetOf,
} from "../sheets";

/** Tells at once, and then with every answer, where a mic is, and whether a hand still holds it. */
export type FollowFlag = (
  place: (mic: string, board: Board, underHand: boolean) => void,
) => () => void;

/** A tape: which column of the board it shows, and where a distance is on it, in pixels. */
export interface Scale {
  column: number;
  from: number;
  to: number;
  x: (metres: number) => number;
}

/** The part of a tape from one distance to another, on so many pixels after so many. */
export function scaleOf(
  column: number,
  [from, to]: readonly [number, number],
  left: number,
  px: number,
): Scale {
  return { column, from, to, x: (m) => left + ((m - from) * px) / (to - from) };
}

/**
 * Put a flag and its ticks where they are on the tape: only here is told where that is. The whole
 * flag is shifted, so that its name is not set anew.
 */
export function stand(flag: SVGElement, x: number, ticks: readonly number[]): void {
  flag.setAttribute("transform", `translate(${x.toFixed(2)} 0)`);
  flag.dataset.at = x.toFixed(2);
  const [, ...marks] = flag.querySelectorAll("line");
  marks.forEach((mark, i) => {
    for (const end of ["x1", "x2"]) mark.setAttribute(end, ((ticks[i] ?? x) - x).toFixed(2));
  });
}

interface OnTape {
  scale: Scale;
  flag: SVGElement;
}

interface HeldFlag {
  scale: Scale;
  sheet: Sheet;
  /** Where it was on the tape when it was copied, pixels, and what it looked like. */
  at: number;
  look: string;
}

/** Less than this nobody sees. */
const STILL_PX = 0.01;

const drawnAt = (flag: SVGElement) => Number(flag.dataset.at);

const flagOf = (paper: Element, mic: string, { column }: Scale) =>
  paper.querySelector<SVGElement>(`[data-flag="${column}-${mic}"]`);

/** Each tape's flag of one mic; a bunch is not one. */
const flagsOf = (paper: Element, mic: string, scales: readonly Scale[]): OnTape[] =>
  scales.flatMap((scale) => {
    const flag = flagOf(paper, mic, scale);
    return flag ? [{ scale, flag }] : [];
  });

function hold(paper: Element, mic: string, { scale, flag }: OnTape, box: Box): HeldFlag {
  const copy = flag.parentElement?.cloneNode(false) as Element;
  copy.append(copied(flag));
  const sheet = sheetOf(paper, box, [copy], { handFlag: `${scale.column}-${mic}` });
  outOfSight(flag);
  return { scale, sheet, at: drawnAt(flag), look: flag.innerHTML };
}

/** Off the part of the tape that is shown, a flag is not seen. */
function shift({ scale, sheet, at }: HeldFlag, metres: number): void {
  const seen = metres >= scale.from && metres <= scale.to ? "" : "hidden";
  const svg = sheet.on as SVGElement;
  if (svg.style.visibility !== seen) svg.style.visibility = seen;
  moveSheet(sheet, scale.x(metres) - at, 0);
}

/** The tapes on a paper under a hand. */
class FlagHand {
  private paper: Element | null = null;
  private scales: readonly Scale[] = [];
  private held: HeldFlag[] = [];
  private by: string | null = null;
  /** How far the mic under the hand is from each drum. */
  private row: readonly number[] = [];

  /**
   * The tapes were drawn anew. What the hand holds is kept and goes to its place on them, unless
   * it looks otherwise now: to copy it is much to do for one frame.
   */
  drawn(paper: Element | null, scales: readonly Scale[]): void {
    if (paper !== this.paper) this.letGo();
    [this.paper, this.scales] = [paper, scales];
    const mic = this.by;
    if (!paper || !mic || this.held.length === 0) return;
    const flags = flagsOf(paper, mic, scales);
    if (flags.every((f) => this.holdsSo(f))) {
      for (const { flag } of flags) outOfSight(flag);
      this.held = this.held.map((h) => ({ ...h, scale: this.scaleNow(h) }));
      this.along();
      return;
    }
    this.putBack();
    this.take();
  }

  /** In a bunch it is not drawn by itself, but still held. */
  private holdsSo({ scale, flag }: OnTape): boolean {
    const held = this.held.find((h) => h.scale.column === scale.column);
    return held?.look === flag.innerHTML;
  }

  private scaleNow({ scale }: HeldFlag): Scale {
    return this.scales.find((s) => s.column === scale.column) ?? scale;
  }

  /** An answer came: where a mic is, and whether the hand still holds it. */
  readonly place = (mic: string, board: Board, underHand: boolean): void => {
    this.row = board.tape_m[board.mic_ids.indexOf(mic)] ?? [];
    if (!underHand) {
      this.letGo();
      for (const { flag, at } of this.places(mic)) stand(flag, at, [at]);
    } else if (this.by === mic) this.along();
    else {
      this.letGo();
      if (!this.places(mic).some(({ flag, at }) => !(Math.abs(at - drawnAt(flag)) < STILL_PX)))
        return;
      this.by = mic;
      // The frame of an answer has much to do.
      frames.turn(this.take, true);
    }
  };

  /** The flags of a mic, and where on their tapes they belong. */
  private places(mic: string) {
    const flags = this.paper ? flagsOf(this.paper, mic, this.scales) : [];
    return flags.map(({ flag, scale }) => ({ flag, at: scale.x(this.metres(scale)) }));
  }

  private metres({ column }: Scale): number {
    return this.row[column] ?? Number.NaN;
  }

  private along(): void {
    for (const one of this.held) shift(one, this.metres(one.scale));
  }

  private readonly take = () =>
    apart(() => {
      const { paper, by: mic } = this;
      if (!mic || !paper) return;
      const found = flagsOf(paper, mic, this.scales).map((one) => ({
        one,
        box: boundsOf(paper, [one.flag]),
      }));
      return () => {
        if (this.held.length === 0)
          this.held = found.map(({ one, box }) => hold(paper, mic, one, box));
        this.along();
      };
    });

  private putBack(): void {
    const hidden = this.paper?.querySelectorAll<SVGElement>("[data-flag][style]") ?? [];
    inSight(
      hidden,
      this.held.map((h) => h.sheet),
    );
    this.held = [];
  }

  letGo(): void {
    frames.drop(this.take);
    this.putBack();
    this.by = null;
  }
}

/** Keep the tapes on this paper with the hand, whenever they are drawn anew. */
export function useFlagHand(
  paper: RefObject<Element | null>,
  follow: FollowFlag,
  scales: readonly Scale[],
): void {
  const [hand] = useState(() => new FlagHand());
  useLayoutEffect(() => hand.drawn(paper.current, scales));
  useLayoutEffect(() => {
    const leave = follow(hand.place);
    return () => {
      leave();
      hand.letGo();
    };
  }, [hand, follow]);
}
