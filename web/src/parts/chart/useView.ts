/** The part of the floor a chart shows: fitted to what is there, zoomed by the wheel, panned. */
import {
  type PointerEvent,
  type RefObject,
  useEffect,
  useLayoutEffect,
  useRef,
  useState,
} from "react";
import type { Layout } from "../../api/types";
import { isAway } from "../../core/edges";
import {
  type Facing,
  fitted,
  type Point2,
  type Point3,
  pulled,
  toScreen,
  type View,
  zoomed,
} from "../../core/view";
import { useSize } from "../useSize";
import type { ChartProps } from "./look";

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

/** Under so many pixels a metre the names on the kit are no longer read. */
const READ_PX = 105;

/** All of it; or the kit alone, where the mics off it would make it too small to read. */
function begun(props: Pick<ChartProps, "layout" | "fresh">, view: View): View {
  const { layout, fresh } = props;
  const whole = fitted(extent(layout, view.facing), view);
  const shown = layout.mics.some((m) => m.role === "room" && fresh?.includes(m.id));
  const off = layout.mics.some((m) => m.role === "room");
  if (!off || shown || whole.scale >= READ_PX) return whole;
  return fitted(extent(layout, view.facing, true), view, EDGE_MARGIN);
}

/** Room for the plates at the border. */
const EDGE_MARGIN = 52;

/** The same view, or one that holds the mics that have come as well: a hand is about to take them. */
function held(layout: Layout, before: Set<string>, view: View): View {
  const come = layout.mics.filter((m) => !before.has(m.id)).map((m) => m.position_m);
  const off = come.some((p) => isAway(toScreen(p, view), view));
  if (!view.scale || !off || come.length === layout.mics.length) return view;
  return fitted([...extent(layout, view.facing, true), ...come], view, EDGE_MARGIN);
}

type SetView = (change: (view: View) => View) => void;

/** The wheel zooms about the pointer; React's own wheel events could not stop the page. */
function useWheel(svg: RefObject<SVGSVGElement | null>, setView: SetView) {
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
  }, [svg, setView]);
}

/** Take hold of the paper itself and pull it along; a second finger spreads it, also from a mic. */
function usePull(view: View, setView: SetView) {
  const fingers = useRef(new Map<number, Point2>());
  const from = useRef<{ at: Point2[]; view: View }>({ at: [], view });
  /** As it was last pulled, which may not be drawn yet. */
  const last = useRef<View>(view);
  /** From there on, with the fingers there are now. */
  const begin = () => {
    from.current = { at: [...fingers.current.values()], view: last.current };
  };
  const put = (e: PointerEvent<SVGSVGElement>) => {
    const box = e.currentTarget.getBoundingClientRect();
    fingers.current.set(e.pointerId, [e.clientX - box.left, e.clientY - box.top]);
  };
  const take = (e: PointerEvent<SVGSVGElement>) => {
    if (fingers.current.size === 0) last.current = view;
    put(e);
    begin();
    e.currentTarget.setPointerCapture(e.pointerId);
  };
  const lift = (e: PointerEvent<SVGSVGElement>) => {
    if (fingers.current.delete(e.pointerId)) begin();
  };
  return {
    onPointerDownCapture: (e: PointerEvent<SVGSVGElement>) => {
      if (e.isPrimary) {
        fingers.current.clear(); // whatever is still known was never seen to be lifted
        return;
      }
      e.stopPropagation(); // no second mic is taken hold of
      if (fingers.current.size === 1) take(e);
    },
    onPointerDown: (e: PointerEvent<SVGSVGElement>) => {
      if (e.button === 0) take(e);
    },
    onPointerMove: (e: PointerEvent<SVGSVGElement>) => {
      if (!fingers.current.has(e.pointerId)) return;
      put(e);
      const { at, view: was } = from.current;
      last.current = pulled(was, at, [...fingers.current.values()]);
      const { scale, middle } = last.current;
      setView((v) => ({ ...v, scale, middle }));
    },
    onPointerUp: lift,
    onPointerCancel: lift,
    onLostPointerCapture: lift,
  };
}

export function useView({ facing, side, layout, fresh }: ChartProps) {
  const [paper, size] = useSize<HTMLDivElement>();
  const svg = useRef<SVGSVGElement>(null);
  const [view, setView] = useState<View>({ facing, side, middle: [0, 0], scale: 0, ...size });
  const shown = fresh?.join(" ") ?? "";
  // biome-ignore lint/correctness/useExhaustiveDependencies: fits when the paper changes, not as mics move
  useLayoutEffect(() => {
    if (size.width) setView(begun({ layout, fresh }, { ...view, ...size, facing, side }));
  }, [size.width, size.height, facing, side, layout.kit.name, shown]);
  const ids = layout.mics.map((m) => m.id).join(" ");
  const known = useRef(ids);
  // biome-ignore lint/correctness/useExhaustiveDependencies: asked when mics come or go, not as they move
  useEffect(() => {
    const before = new Set(known.current.split(" "));
    known.current = ids;
    setView((v) => held(layout, before, v));
  }, [ids]);
  useWheel(svg, setView);
  const hold = usePull(view, setView);
  const zoom = (by: number) => setView((v) => zoomed(v, by, [v.width / 2, v.height / 2]));
  const frame = (kitOnly: boolean) =>
    setView(fitted(extent(layout, facing, kitOnly), view, kitOnly ? EDGE_MARGIN : undefined));
  return { paper, svg, size, view, hold, zoom, frame };
}
