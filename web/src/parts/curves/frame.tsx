/** What every curve is drawn with: its paper, the marks along its foot and side, and its line. */
import type { ReactNode } from "react";
import { trace } from "../../core/curves";

interface PaperProps {
  wide: number;
  high: number;
  /** What the drawing says; without it the drawing only shows what stands beside it in words. */
  label?: string;
  children: ReactNode;
}

/** On a phone a wide one is drawn so small that what is written on it is not read: larger there. */
const legible = (wide: number) => (wide > 420 ? "max-[560px]:[&_text]:text-[14.5px]" : "");

/** A drawing that is as wide as its place. */
export function Paper({ wide, high, label, children }: PaperProps) {
  const said = label ? { role: "img", "aria-label": label } : { "aria-hidden": true as const };
  return (
    <svg viewBox={`0 0 ${wide} ${high}`} className={`block w-full ${legible(wide)}`} {...said}>
      {children}
    </svg>
  );
}

interface LayeredProps extends PaperProps {
  under: ReactNode;
  over?: ReactNode;
}

/**
 * Lines that follow a hand, over a paper that stands and under what is written on it: laid out and
 * painted with those they take three times as long.
 */
export function Layered({ under, over, label, children, ...size }: LayeredProps) {
  return (
    <div className="relative h-max">
      <Paper {...size} label={label}>
        {under}
      </Paper>
      <Sheet {...size}>{children}</Sheet>
      {over && <Sheet {...size}>{over}</Sheet>}
    </div>
  );
}

function Sheet({ wide, high, children }: Omit<PaperProps, "label">) {
  return (
    <svg
      viewBox={`0 0 ${wide} ${high}`}
      aria-hidden="true"
      className={`pointer-events-none absolute inset-0 size-full contain-strict ${legible(wide)}`}
    >
      {children}
    </svg>
  );
}

interface WordProps {
  x: number;
  y: number;
  size?: number;
  anchor?: "start" | "middle" | "end";
  children: ReactNode;
}

/** A number or a word of the frame. */
export function Word({ x, y, size = 10, anchor = "middle", children }: WordProps) {
  return (
    <text
      x={x}
      y={y}
      fontSize={size}
      textAnchor={anchor}
      className="num"
      fill="var(--soft)"
      stroke="var(--panel)"
      strokeWidth="2.5"
      paintOrder="stroke"
    >
      {children}
    </text>
  );
}

/** Values along the foot. */
export function Foot(props: {
  at: readonly number[];
  x: (v: number) => number;
  y: number;
  say: (v: number, i: number) => string;
  size?: number;
}) {
  return props.at.map((v, i) => (
    <Word key={v} x={props.x(v)} y={props.y} size={props.size}>
      {props.say(v, i)}
    </Word>
  ));
}

/** Level lines across, from `from` to `to`. */
export function Across(props: {
  at: readonly number[];
  y: (v: number) => number;
  from?: number;
  to: number;
}) {
  return props.at.map((v) => (
    <line
      key={v}
      x1={props.from ?? 0}
      x2={props.to}
      y1={props.y(v)}
      y2={props.y(v)}
      stroke="var(--hair)"
      strokeWidth="0.8"
    />
  ));
}

/** Values down the side, each ending at `x`. */
export function Side(props: {
  at: readonly number[];
  x: number;
  y: (v: number) => number;
  say: (v: number) => string;
}) {
  return props.at.map((v) => (
    <Word key={v} x={props.x} y={props.y(v) + 3} anchor="end">
      {props.say(v)}
    </Word>
  ));
}

/** Levels in dB, written on their own lines over the curves. */
export function Levels({ at, y }: { at: readonly number[]; y: (db: number) => number }) {
  return at.map((db) => (
    <Word key={db} x={2} y={y(db) - 2} size={8} anchor="start">
      {db} dB
    </Word>
  ));
}

interface CurveProps {
  xs: readonly number[];
  ys: readonly (number | null)[];
  x: (v: number) => number;
  y: (v: number) => number;
  colour: string;
  dash?: string;
  bold?: boolean;
}

/** A line through what is known; where nothing is known it breaks. */
export function Curve({ xs, ys, x, y, colour, dash, bold }: CurveProps) {
  return (
    <path
      d={trace(xs, ys, x, y)}
      fill="none"
      stroke={colour}
      strokeWidth={bold ? 2 : 1.6}
      strokeDasharray={dash}
      strokeLinecap="round"
    />
  );
}

/** The line of a pair as wired, which is only sure when the signs are. */
export const asWired = (sure: boolean) =>
  sure
    ? { colour: "var(--hollow)", bold: true }
    : { colour: "var(--ring)", dash: FLIPPED.dash, bold: true };

/** The line of a pair with one flipped. */
export const FLIPPED = { colour: "var(--ring)", dash: "5 3" };
