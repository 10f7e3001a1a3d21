/**
 * The floor chart in one view: kit to scale, mics to move, the ring, the spheres and the lines.
 * It draws and reports what the hand does; it fetches nothing and decides nothing.
 */

import { memo } from "react";
import { AimHandle } from "./AimHandle";
import { useCarry } from "./carry";
import { Ground, KitDrawing } from "./Ground";
import type { ChartProps, InView } from "./look";
import { Mics } from "./Mics";
import { useShifts } from "./shifts";
import { useView } from "./useView";

export const Chart = memo(function Chart(props: ChartProps) {
  const { title, layout } = props;
  const { paper, svg, size, view, hold, zoom, frame } = useView(props);
  const { width, height } = size;
  useShifts(paper, props, view);
  useCarry(paper, props, view);
  return (
    <section className="relative flex min-h-0 min-w-0 flex-col" aria-label={title}>
      <Head {...props} zoom={zoom} frame={frame} />
      <div ref={paper} className="relative min-h-0 flex-1 overflow-hidden contain-strict">
        {/* What stands still has a layer of its own, so that a drag repaints only what moves. Where
            one is followed, nothing shines through it: all that is seen through costs every frame. */}
        {view.scale > 0 && (
          <svg
            {...{ width, height }}
            aria-hidden="true"
            className={`absolute inset-0 will-change-transform ${props.watch ? "bg-paper" : ""}`}
          >
            <Ground
              view={view}
              rug={layout.kit.rug}
              room={layout.room ?? null}
              ruler={props.ruler}
            />
            <KitDrawing view={view} layout={layout} rest={props.still ?? layout} />
            {props.lain?.(view)}
          </svg>
        )}
        <svg
          ref={svg}
          {...{ width, height }}
          role="group"
          aria-label={`${title}: ${props.layer ? "kit" : "mics"} of ${layout.name}`}
          className="absolute inset-0 touch-none will-change-transform select-none"
          {...hold}
        >
          {view.scale > 0 && <Moving {...props} view={view} />}
        </svg>
        <NamedFrom {...props} />
      </div>
    </section>
  );
});

/** A word where left and right are named from the other side than the chart is seen from. */
function NamedFrom({ board, side, facing }: ChartProps) {
  const other = facing === "side" ? null : board?.named_from.find((p) => p.seen_from !== side);
  if (!other) return null;
  return (
    <p
      className="pointer-events-none absolute bottom-1 left-3 text-[0.76rem] text-soft"
      data-named-from={other.seen_from}
    >
      {other.left} and {other.right}: left and right as the {other.seen_from} sees them
    </p>
  );
}

/** The mics with what belongs to them, or behind what the step draws of its own. */
function Moving(props: InView) {
  const { view, layout, layer, onAim } = props;
  if (layer)
    return (
      <>
        <g opacity="0.45" aria-hidden="true" pointerEvents="none">
          <Mics {...props} quiet />
        </g>
        {layer(view)}
      </>
    );
  return (
    <>
      <Mics {...props} />
      {onAim && <AimHandle {...{ view, layout, onAim }} />}
    </>
  );
}

interface HeadProps extends ChartProps {
  zoom: (by: number) => void;
  frame: (kitOnly: boolean) => void;
}

function Head({ title, hint, layout, tools, zoom, frame }: HeadProps) {
  const away = layout.mics.some((m) => m.role === "room");
  const rows = [
    ["+", "Zoom in", () => zoom(1.25)],
    ["−", "Zoom out", () => zoom(0.8)],
    ["All", "Show all", () => frame(false)],
    ...(away ? ([["Kit", "Show the kit", () => frame(true)]] as const) : []),
  ] as const;
  return (
    <header className="flex flex-wrap items-center gap-x-2 gap-y-1 px-3 pt-2 text-[0.85rem]">
      <h2 className="text-[0.95rem] whitespace-nowrap narrow:sr-only">{title}</h2>
      {!away && <span className="truncate text-soft max-[1150px]:hidden">{hint}</span>}
      <span className="ml-auto flex shrink-0 gap-1 narrow:ml-0 narrow:shrink narrow:flex-wrap">
        {tools}
        {rows.map(([words, said, run]) => (
          <button
            key={said}
            type="button"
            className="btn px-2 py-0.5 text-[0.8rem]"
            onClick={run}
            aria-label={`${said}, ${title}`}
          >
            {words}
          </button>
        ))}
      </span>
    </header>
  );
}
