import { useLayoutEffect, useRef, useState } from "react";

interface Size {
  width: number;
  height: number;
}

/** What an element has room for, in pixels. */
function roomIn(element: Element): Size {
  const { width, height } = element.getBoundingClientRect();
  const style = getComputedStyle(element);
  const edges = (...sides: ("Left" | "Right" | "Top" | "Bottom")[]) =>
    sides
      .flatMap((side) => [style[`padding${side}`], style[`border${side}Width`]])
      .reduce((sum, px) => sum + (Number.parseFloat(px) || 0), 0);
  return { width: width - edges("Left", "Right"), height: height - edges("Top", "Bottom") };
}

const same = (a: Size, b: Size) =>
  Math.abs(a.width - b.width) < 0.01 && Math.abs(a.height - b.height) < 0.01;

/**
 * The size of an element in pixels, kept as it changes. It is known before the first picture: what
 * is drawn to its measure is on that, not on the one after it.
 */
export function useSize<T extends Element>() {
  const ref = useRef<T>(null);
  const [size, setSize] = useState<Size>({ width: 0, height: 0 });
  useLayoutEffect(() => {
    const element = ref.current;
    if (!element) return;
    const take = (now: Size) => setSize((was) => (same(was, now) ? was : now));
    take(roomIn(element));
    const watch = new ResizeObserver(([entry]) => {
      if (entry) take({ width: entry.contentRect.width, height: entry.contentRect.height });
    });
    watch.observe(element);
    return () => watch.disconnect();
  }, []);
  return [ref, size] as const;
}
