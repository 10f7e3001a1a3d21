/**
 * The lines from drums to a mic under the hand. Each is a bar that is turned and stretched between
 * its two ends: a line drawn anew would have all of the paper under it painted with every frame.
 */
import type { Point2 } from "../../core/view";
import { copied, moving, outOfSight, type Sheet, transformSheet } from "../sheets";

export interface Bar {
  line: SVGElement;
  sheet: Sheet;
  /** What is drawn on it, whether that may be stretched, and how long it is unless it is. */
  drawn: Element;
  dashed: boolean;
  long: number;
  /** The end that stands, on the paper. */
  from: Point2;
}

/** Room for a line, with the line in the middle of a row of pixels: turned, it stays clear. */
const WIDE = 5;
/** A line may begin as a point, and a point cannot be stretched. */
const SHORTEST = 60;
/** Dashes that are stretched more than this are seen to be. */
const STRETCH = 1.2;

/** A bar in the place of a line from the mic (its first end), right under what `over` is. */
export function barOf(line: SVGElement, over: Element): Bar {
  const svg = document.createElementNS("http://www.w3.org/2000/svg", "svg");
  svg.setAttribute("class", "pointer-events-none absolute top-0 left-0 origin-top-left");
  svg.setAttribute("aria-hidden", "true");
  svg.setAttribute("height", `${WIDE}`);
  svg.dataset.bar = "";
  const drawn = copied(line);
  svg.append(drawn);
  over.before(svg);
  outOfSight(line);
  const at = (name: string) => Number(line.getAttribute(name));
  const dashed = line.hasAttribute("stroke-dasharray");
  const from: Point2 = [at("x2"), at("y2")];
  return draw(
    { line, sheet: moving(svg), drawn, dashed, long: 0, from },
    Math.hypot(at("x1") - at("x2"), at("y1") - at("y2")),
  );
}

function draw(bar: Bar, long: number): Bar {
  bar.long = Math.max(long, SHORTEST);
  bar.sheet.on.setAttribute("width", bar.long.toFixed(2));
  const ends = { x1: bar.long, y1: WIDE / 2, x2: 0, y2: WIDE / 2 };
  for (const [name, px] of Object.entries(ends)) bar.drawn.setAttribute(name, px.toFixed(2));
  return bar;
}

/** `from` where that end goes along as well. */
export function reach(bar: Bar, [toX, toY]: Point2, [x, y]: Point2 = bar.from): void {
  const turn = Math.atan2(toY - y, toX - x);
  const far = Math.hypot(toX - x, toY - y);
  if (bar.dashed && Math.max(far / bar.long, bar.long / Math.max(far, SHORTEST)) > STRETCH)
    draw(bar, far);
  const steps = [
    `translate(${x}px, ${y}px)`,
    `rotate(${turn.toFixed(5)}rad)`,
    `scaleX(${(far / bar.long).toFixed(4)})`,
    `translateY(${-WIDE / 2}px)`,
  ];
  transformSheet(bar.sheet, steps.join(" "));
}
