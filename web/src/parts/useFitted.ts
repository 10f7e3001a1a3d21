/** A plan from above that holds given places on the paper there is. */
import { useLayoutEffect, useState } from "react";
import { fitted, type Point3, type View } from "../core/view";
import { useSize } from "./useSize";

/** Fits when paper or places change, not as something moves between them. */
export function useFitted(corners: readonly Point3[], margin: number) {
  const [ref, size] = useSize<HTMLDivElement>();
  const [view, setView] = useState<View>({
    facing: "above",
    side: "drummer",
    middle: [0, 0],
    scale: 0,
    ...size,
  });
  const key = corners.map((c) => c.map((v) => v.toFixed(3)).join(" ")).join(",");
  // biome-ignore lint/correctness/useExhaustiveDependencies: the places are in the key
  useLayoutEffect(() => {
    if (size.width) setView(fitted([...corners], { ...view, ...size }, margin));
  }, [size.width, size.height, key]);
  return { ref, size, view };
}
