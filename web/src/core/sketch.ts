/** What a small drawing of a layout needs, taken from the layout itself. */
import type { Layout, Summary } from "../api/types";

type Drawn = Pick<Summary, "drums" | "cymbals" | "mics">;

/** Drums, cymbals and mics in plan, metres. */
export function sketchOf(layout: Layout): Drawn {
  return {
    drums: layout.kit.drums.map((d) => ({
      x: d.batter_m[0],
      y: d.batter_m[1],
      r: d.diameter_m / 2,
      kind: d.kind,
      depth: d.depth_m,
      ax: d.axis[0],
      ay: d.axis[1],
    })),
    cymbals: (layout.kit.cymbals ?? []).map((c) => ({
      x: c.centre_m[0],
      y: c.centre_m[1],
      r: c.diameter_m / 2,
    })),
    mics: layout.mics.map((m) => ({
      id: m.id,
      x: m.position_m[0],
      y: m.position_m[1],
      role: m.role,
    })),
  };
}

/** The part of the floor that holds the kit and every mic: x, y, width, height, y downward. */
export function boxOf(drawn: Drawn): [number, number, number, number] {
  const xs = [-0.8, 1.3, ...drawn.mics.flatMap((m) => [m.x - 0.15, m.x + 0.15])];
  const ys = [-0.67, 0.95, ...drawn.mics.flatMap((m) => [m.y - 0.15, m.y + 0.15])];
  const [x0, x1] = [Math.min(...xs), Math.max(...xs)];
  const [y0, y1] = [Math.min(...ys), Math.max(...ys)];
  return [x0, -y1, x1 - x0, y1 - y0];
}
