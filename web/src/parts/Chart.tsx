/**
 * The floor chart in one view: kit to scale, mics to move, the ring, the spheres and the lines.
 * It draws and reports what the hand does; it fetches nothing and decides nothing.
 */

import { type ReactNode, useEffect, useRef, useState } from "react";
import type { Board, Layout } from "../api/types";
import type { Ruler } from "../core/units";
import {
  type Facing,
  fitted,
  type Point2,
  type Point3,
  type Side,
  type View,
  zoomed,
} from "../core/view";
import { Ground, KitDrawing } from "./ChartGround";
import { Loci } from "./ChartLoci";
import { AimHandle, Mics } from "./ChartMics";
import { useSize } from "./useSize";

export interface ChartProps {
  title: string;
  hint: string;
  facing: Facing;
  side: Side;
  layout: Layout;
  board: Board | null;
  ruler: Ruler;
  lit: string[];
  /** Mics that are only shown, not taken: drawn dashed. */
  fresh?: string[];
  selected: string | null;
  onSelect: (id: string, extend: boolean) => void;
  onHover: (id: string | null) => void;
  onMove: (id: string, to: Point3, done: boolean) => void;
  onAim: (id: string, aim: Point3, done: boolean) => void;
  onNudge: (id: string, to: Point3) => void;
  tools?: ReactNode;
  /** Something of the step's own, drawn over the kit; the mics stand back then. */
  layer?: (view: View) => ReactNode;
}

/** Everything the fitted view should hold: all of it, or the kit without the mics off it. */
function extent(layout: Layout, facing: Facing, kitOnly = false): Point3[] {
  const mics = kitOnly ? layout.mics.filter((m) => m.role !== "room") : layout.mics;
  const out: Point3[] = mics.map((m) => m.position_m);
  for (const d of layout.kit.drums)
    for (const s of [-1, 1])
      out.push([d.batter_m[0] + (s * d.diameter_m) / 2, d.batter_m[1], 0] as const);
  for (const c of layout.kit.cymbals ?? [])
    for (const s of [-1, 1])
      out.push([c.centre_m[0] + (s * c.diameter_m) / 2, c.centre_m[1], c.centre_m[2]]);
  const rug = layout.kit.rug;
  if (rug && facing === "above")
    for (const s of [-1, 1])
      out.push([
        rug.centre_m[0] + (s * rug.width_m) / 2,
        rug.centre_m[1] + (s * rug.length_m) / 2,
        0,
      ]);
  if (layout.kit.stool) out.push([...layout.kit.stool.position_m, 0]);
  if (facing !== "above") out.push([0, 0, 1.95], [0, 0, -0.12]);
  return out;
}

export function Chart(props: ChartProps) {
  const { facing, side, layout, board, selected } = props;
  const [ref, size] = useSize<HTMLDivElement>();
  const [view, setView] = useState<View>({ facing, side, middle: [0, 0], scale: 0, ...size });
  const kitName = layout.kit.name;
  const fresh = props.fresh?.join(" ") ?? "";
  // biome-ignore lint/correctness/useExhaustiveDependencies: fits when the paper changes, not as mics move
  useEffect(() => {
    if (size.width) setView(fitted(extent(layout, facing), { ...view, ...size, facing, side }));
  }, [size.width, size.height, facing, side, kitName, fresh]);
  const frame = (kitOnly: boolean) => setView(fitted(extent(layout, facing, kitOnly), view));
  const away = layout.mics.some((m) => m.role === "room");
  const svg = useRef<SVGSVGElement>(null);
  useEffect(() => {
    const element = svg.current;
    if (!element) return;
    const onWheel = (e: WheelEvent) => {
      e.preventDefault();
      const box = element.getBoundingClientRect();
      const at: Point2 = [e.clientX - box.left, e.clientY - box.top];
      setView((v) => zoomed(v, Math.exp(-e.deltaY * 0.0012), at));
    };
    element.addEventListener("wheel", onWheel, { passive: false });
    return () => element.removeEventListener("wheel", onWheel);
  }, []);
  const pan = useRef<{ x: number; y: number; view: View } | null>(null);

  return (
    <section className="relative flex min-h-0 min-w-0 flex-col" aria-label={props.title}>
      <header className="flex flex-wrap items-center gap-x-2 gap-y-1 px-3 pt-2 text-[0.85rem]">
        <h2 className="whitespace-nowrap text-[0.95rem]">{props.title}</h2>
        {!away && <span className="truncate text-soft max-[1150px]:hidden">{props.hint}</span>}
        <span className="ml-auto flex shrink-0 gap-1">
          {props.tools}
          <button
            type="button"
            className="btn px-2 py-0.5 text-[0.8rem]"
            onClick={() => setView((v) => zoomed(v, 1.25, [v.width / 2, v.height / 2]))}
            aria-label={`Zoom in, ${props.title}`}
          >
            +
          </button>
          <button
            type="button"
            className="btn px-2 py-0.5 text-[0.8rem]"
            onClick={() => setView((v) => zoomed(v, 0.8, [v.width / 2, v.height / 2]))}
            aria-label={`Zoom out, ${props.title}`}
          >
            −
          </button>
          <button
            type="button"
            className="btn px-2 py-0.5 text-[0.8rem]"
            onClick={() => frame(false)}
            aria-label={`Show all, ${props.title}`}
          >
            All
          </button>
          {away && (
            <button
              type="button"
              className="btn px-2 py-0.5 text-[0.8rem]"
              onClick={() => frame(true)}
              aria-label={`Show the kit, ${props.title}`}
            >
              Kit
            </button>
          )}
        </span>
      </header>
      <div ref={ref} className="relative min-h-0 flex-1 overflow-hidden">
        {/* What stands still has a layer of its own, so that a drag repaints only what moves. */}
        {view.scale > 0 && (
          <svg
            width={size.width}
            height={size.height}
            aria-hidden="true"
            className="absolute inset-0 will-change-transform"
          >
            <Ground view={view} kit={layout.kit} room={layout.room ?? null} ruler={props.ruler} />
            <KitDrawing view={view} kit={layout.kit} />
          </svg>
        )}
        <svg
          ref={svg}
          width={size.width}
          height={size.height}
          role="group"
          aria-label={`${props.title}: ${props.layer ? "kit" : "mics"} of ${layout.name}`}
          className="absolute inset-0 touch-none will-change-transform select-none"
          onPointerDown={(e) => {
            if (e.button !== 0) return;
            pan.current = { x: e.clientX, y: e.clientY, view };
            e.currentTarget.setPointerCapture(e.pointerId);
          }}
          onPointerMove={(e) => {
            const from = pan.current;
            if (!from) return;
            const { scale, middle } = from.view;
            setView({
              ...view,
              middle: [
                middle[0] - (e.clientX - from.x) / scale,
                middle[1] + (e.clientY - from.y) / scale,
              ],
            });
          }}
          onPointerUp={() => {
            pan.current = null;
          }}
        >
          {view.scale > 0 &&
            (props.layer ? (
              <>
                <g opacity="0.45" aria-hidden="true" pointerEvents="none">
                  <Mics {...props} view={view} quiet />
                </g>
                {props.layer(view)}
              </>
            ) : (
              <>
                <Loci view={view} layout={layout} board={board} ruler={props.ruler} />
                <Mics {...props} view={view} />
                {selected && <AimHandle {...props} view={view} />}
              </>
            ))}
        </svg>
      </div>
    </section>
  );
}
