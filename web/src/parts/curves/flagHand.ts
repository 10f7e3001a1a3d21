/**
 * The flag of a mic under the hand goes along its tape with every answer, on a sheet of its own;
 * the tapes are drawn anew when the hand rests.
 */
import { type RefObject, useLayoutEffect } from "react";
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

interface FoundFlag extends OnTape {
  box: Box;
}

interface HeldFlag extends OnTape {
  sheet: Sheet;
}

/** Each tape's flag of one mic; a bunch is not one. */
const flagsOf = (paper: Element, mic: string, scales: readonly Scale[]): OnTape[] =>
  scales.flatMap((scale) => {
    const flag = paper.querySelector<SVGElement>(`[data-flag="${scale.column}-${mic}"]`);
    return flag ? [{ scale, flag }] : [];
  });

function hold(paper: Element, mic: string, { scale, flag, box }: FoundFlag): HeldFlag {
  const copy = flag.parentElement?.cloneNode(false) as Element;
  copy.append(copied(flag));
  const sheet = sheetOf(paper, box, [copy], { handFlag: `${scale.column}-${mic}` });
  outOfSight(flag);
  return { scale, flag, sheet };
}

/** Less than this nobody sees. */
const STILL_PX = 0.01;

const drawnAt = (flag: SVGElement) => Number(flag.dataset.at);

/** Off the part of the tape that is shown, a flag is not seen. */
function shift({ scale, flag, sheet }: HeldFlag, metres: number): void {
  const seen = metres >= scale.from && metres <= scale.to ? "" : "hidden";
  const svg = sheet.on as SVGElement;
  if (svg.style.visibility !== seen) svg.style.visibility = seen;
  moveSheet(sheet, scale.x(metres) - drawnAt(flag), 0);
}

/** Keep the tapes on this paper with the hand, whenever they are drawn anew. */
export function useFlagHand(
  paper: RefObject<Element | null>,
  follow: FollowFlag,
  scales: readonly Scale[],
): void {
  useLayoutEffect(() => {
    const drawn = paper.current;
    if (!drawn) return;
    let [held, by]: [HeldFlag[], string | null] = [[], null];
    let row: readonly number[] = [];
    const at = ({ column }: Scale) => row[column] ?? Number.NaN;
    const along = () => {
      for (const one of held) shift(one, at(one.scale));
    };
    const letGo = () => {
      frames.drop(take);
      inSight(
        drawn.querySelectorAll("[data-flag][style]"),
        held.map((h) => h.sheet),
      );
      [held, by] = [[], null];
    };
    const take = () =>
      apart(() => {
        const mic = by;
        if (!mic) return;
        const found = flagsOf(drawn, mic, scales).map((one) => ({
          ...one,
          box: boundsOf(drawn, [one.flag]),
        }));
        return () => {
          if (held.length === 0) held = found.map((one) => hold(drawn, mic, one));
          along();
        };
      });
    const hasMoved = (mic: string) =>
      flagsOf(drawn, mic, scales).some(
        ({ scale, flag }) => !(Math.abs(scale.x(at(scale)) - drawnAt(flag)) < STILL_PX),
      );
    // Drawn anew under a hand they are taken at once; at first when there is somewhere to go, with
    // the next frame: the one of an answer has much to do.
    let atOnce = true;
    const leave = follow((mic, board, underHand) => {
      row = board.tape_m[board.mic_ids.indexOf(mic)] ?? [];
      if (!underHand) {
        letGo();
        for (const { scale, flag } of flagsOf(drawn, mic, scales))
          stand(flag, scale.x(at(scale)), [scale.x(at(scale))]);
      } else if (by === mic) along();
      else {
        if (by) letGo();
        if (!hasMoved(mic)) return;
        by = mic;
        if (atOnce) take();
        else frames.draw(take);
      }
    });
    atOnce = false;
    return () => {
      leave();
      letGo();
    };
  });
}
