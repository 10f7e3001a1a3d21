/** Projections between the kit's metres and a drawing's pixels, and hit-free shapes in between. */

export type Point3 = readonly [number, number, number];
export type Point2 = readonly [number, number];

/** From above; or heights seen along the room (from behind or the front) or from the side. */
export type Facing = "above" | "along" | "side";
export type Side = "drummer" | "audience";

export interface View {
  facing: Facing;
  side: Side;
  /** The place in the middle of the drawing, along its own two axes, metres. */
  middle: Point2;
  /** Pixels per metre. */
  scale: number;
  width: number;
  height: number;
}

/** A point on the view's own axes, metres: right and up on the drawing. */
export function flat(p: Point3, facing: Facing, side: Side): Point2 {
  const turn = side === "drummer" ? 1 : -1;
  if (facing === "above") return [turn * p[0], turn * p[1]];
  if (facing === "along") return [turn * p[0], p[2]];
  return [turn * p[1], p[2]];
}

export function toScreen(p: Point3, v: View): Point2 {
  const [a, b] = flat(p, v.facing, v.side);
  return [v.width / 2 + (a - v.middle[0]) * v.scale, v.height / 2 - (b - v.middle[1]) * v.scale];
}

/** A point moved by pixels, in the plane of the drawing; the third coordinate is kept. */
export function moved(p: Point3, dx: number, dy: number, v: View): Point3 {
  const turn = v.side === "drummer" ? 1 : -1;
  const [a, b] = [(turn * dx) / v.scale, -dy / v.scale];
  if (v.facing === "above") return [p[0] + a, p[1] + turn * b, p[2]];
  if (v.facing === "along") return [p[0] + a, p[1], Math.max(0, p[2] + b)];
  return [p[0], p[1] + a, Math.max(0, p[2] + b)];
}

/** The view that holds all points with a margin in pixels. */
export function fitted(points: Point3[], v: View, margin = 34): View {
  const spots = points.map((p) => flat(p, v.facing, v.side));
  const xs = spots.map((p) => p[0]);
  const ys = spots.map((p) => p[1]);
  const [x0, x1] = [Math.min(...xs), Math.max(...xs)];
  const [y0, y1] = [Math.min(...ys), Math.max(...ys)];
  const wide = (v.width - 2 * margin) / Math.max(x1 - x0, 0.2);
  const high = (v.height - 2 * margin) / Math.max(y1 - y0, 0.2);
  return {
    ...v,
    middle: [(x0 + x1) / 2, (y0 + y1) / 2],
    scale: Math.max(20, Math.min(wide, high, 600)),
  };
}

/** The view after a wheel turn about a point of the screen. */
export function zoomed(v: View, factor: number, at: Point2): View {
  const scale = Math.max(30, Math.min(1500, v.scale * factor));
  const [dx, dy] = [at[0] - v.width / 2, at[1] - v.height / 2];
  const shift = 1 / v.scale - 1 / scale;
  return { ...v, scale, middle: [v.middle[0] + dx * shift, v.middle[1] - dy * shift] };
}

const between = (at: readonly Point2[]): Point2 => [
  at.reduce((sum, [x]) => sum + x, 0) / at.length,
  at.reduce((sum, [, y]) => sum + y, 0) / at.length,
];
const apart = ([a, b]: readonly Point2[]): number =>
  a && b ? Math.max(1, Math.hypot(a[0] - b[0], a[1] - b[1])) : 1;

/** Pulled along by one finger, or by two that spread and close it as well; pixels of its paper. */
export function pulled(v: View, from: readonly Point2[], to: readonly Point2[]): View {
  const [was, now] = [between(from), between(to)];
  const z = zoomed(v, apart(to) / apart(from), was);
  const [dx, dy] = [(now[0] - was[0]) / z.scale, (now[1] - was[1]) / z.scale];
  return { ...z, middle: [z.middle[0] - dx, z.middle[1] + dy] };
}

/** Two unit vectors at right angles to an axis. */
export function across(axis: Point3): [Point3, Point3] {
  const [x, y, z] = axis;
  const helper: Point3 = Math.abs(z) < 0.9 ? [0, 0, 1] : [1, 0, 0];
  const u = unit(cross(helper, [x, y, z]));
  return [u, cross([x, y, z], u)];
}

function cross(a: Point3, b: Point3): Point3 {
  return [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]];
}

export function unit(p: Point3): Point3 {
  const n = Math.hypot(...p) || 1;
  return [p[0] / n, p[1] / n, p[2] / n];
}

/** Points round a disc in space. */
export function disc(centre: Point3, axis: Point3, radius: number, n = 40): Point3[] {
  const [u, w] = across(axis);
  return Array.from({ length: n }, (_, i) => {
    const t = (2 * Math.PI * i) / n;
    const [c, s] = [Math.cos(t) * radius, Math.sin(t) * radius];
    return [
      centre[0] + c * u[0] + s * w[0],
      centre[1] + c * u[1] + s * w[1],
      centre[2] + c * u[2] + s * w[2],
    ];
  });
}

/** Convex outline of points on the screen (monotone chain). */
export function outline(points: Point2[]): Point2[] {
  const sorted = [...points].sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  const half = (list: Point2[]): Point2[] => {
    const out: Point2[] = [];
    for (const p of list) {
      while (out.length > 1 && turnsRight(out[out.length - 2] as Point2, out.at(-1) as Point2, p))
        out.pop();
      out.push(p);
    }
    return out.slice(0, -1);
  };
  return [...half(sorted), ...half(sorted.reverse())];
}

function turnsRight(a: Point2, b: Point2, c: Point2): boolean {
  return (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0]) <= 0;
}

export function path(points: readonly Point2[], closed = true): string {
  const steps = points.map((p, i) => `${i ? "L" : "M"}${p[0].toFixed(1)} ${p[1].toFixed(1)}`);
  return steps.join("") + (closed ? "Z" : "");
}

/** Runs of a line where a flag holds or not, sharing their end points. */
export function runs(flags: readonly boolean[]): { from: number; to: number; on: boolean }[] {
  const out: { from: number; to: number; on: boolean }[] = [];
  for (let i = 0; i + 1 < flags.length; i++) {
    const on = Boolean(flags[i] && flags[i + 1]);
    const last = out.at(-1);
    if (last && last.on === on) last.to = i + 1;
    else out.push({ from: i, to: i + 1, on });
  }
  return out;
}

export interface Tag {
  id: string;
  /** Where the thing is. */
  at: Point2;
  /** The middle of its body on the screen: no plate may cover one, least of all its own. */
  body: Point2;
  /** A direction the tag should rather not go, on the screen. */
  avoid: Point2;
  wide: number;
}

/** What a plate keeps off: a name, or a plate that stands already. */
export interface Taken {
  at: Point2;
  wide: number;
  high: number;
}

const PLATE_HIGH = 19;
const REACHES = [20, 30, 42, 56, 72, 92, 116, 144, 180];

/** A place for each tag near its thing, off the other things and tags; the crowded ones first. */
export function placeTags(
  tags: Tag[],
  v: View,
  keepOff: readonly Taken[] = [],
  standing: readonly Taken[] = [],
): Map<string, Point2> {
  const out = new Map<string, Point2>();
  const done: Taken[] = [...standing];
  for (const tag of tags) {
    let best: Point2 = tag.at;
    let least = Number.POSITIVE_INFINITY;
    for (const reach of REACHES) {
      if (reach * 0.6 >= least) break;
      const ways = reach < 50 ? 12 : 20;
      for (let k = 0; k < ways; k++) {
        const t = (k * 2 * Math.PI) / ways;
        const stretch =
          1 + (tag.wide / 44) * Math.abs(Math.cos(t)) * (20 / Math.max(20, reach / 2));
        const p: Point2 = [
          tag.at[0] + Math.cos(t) * reach * stretch,
          tag.at[1] + Math.sin(t) * reach,
        ];
        const cost = reach * 0.6 + crowding(p, tag, tags, done, v) + onNames(p, tag, keepOff);
        if (cost < least) [best, least] = [p, cost];
      }
    }
    out.set(tag.id, best);
    done.push({ at: best, wide: tag.wide, high: PLATE_HIGH });
  }
  return out;
}

/** Whether two things with these middles and sizes meet, with a gap. */
export function meet(a: Taken, b: Taken, gap = 0): boolean {
  return (
    Math.abs(a.at[0] - b.at[0]) < (a.wide + b.wide) / 2 + gap &&
    Math.abs(a.at[1] - b.at[1]) < (a.high + b.high) / 2 + gap
  );
}

const plateAt = (at: Point2, tag: Tag): Taken => ({ at, wide: tag.wide, high: PLATE_HIGH });

function onNames(p: Point2, tag: Tag, names: readonly Taken[]): number {
  const plate = plateAt(p, tag);
  return names.some((n) => meet(plate, n, 1)) ? 90 : 0;
}

function crowding(p: Point2, tag: Tag, tags: Tag[], done: Taken[], v: View) {
  let cost = 0;
  const plate = plateAt(p, tag);
  for (const d of done) if (meet(plate, d, 2)) cost += 200;
  for (const other of tags) {
    const [dx, dy] = [Math.abs(other.body[0] - p[0]), Math.abs(other.body[1] - p[1])];
    const near = other.id === tag.id ? [8, 17] : [9, 18];
    if (dx < tag.wide / 2 + (near[0] as number) && dy < (near[1] as number)) cost += 110;
  }
  const away = [p[0] - tag.at[0], p[1] - tag.at[1]] as const;
  const along = away[0] * tag.avoid[0] + away[1] * tag.avoid[1];
  if (along > 0) cost += along * 0.8;
  const w = tag.wide / 2 + 2;
  if (p[0] < w || p[0] > v.width - w || p[1] < 12 || p[1] > v.height - 12) cost += 300;
  return cost;
}

/** How far an axis leans from upright and toward where: 0 the drummer, 90 the drummer's right. */
export function leanOf(axis: Point3): { tilt: number; turn: number } {
  const [x, y, z] = axis;
  const flat = Math.hypot(x, y);
  const tilt = (Math.atan2(flat, z) * 180) / Math.PI;
  return { tilt, turn: flat < 1e-6 ? 0 : (Math.atan2(x, -y) * 180) / Math.PI + 0 };
}

/** The axis that leans so, in degrees. */
export function axisOf(tilt: number, turn: number): [number, number, number] {
  const [t, u] = [(tilt * Math.PI) / 180, (turn * Math.PI) / 180];
  const round = (v: number) => Math.round(v * 1e6) / 1e6 + 0;
  return [round(Math.sin(t) * Math.sin(u)), round(-Math.sin(t) * Math.cos(u)), round(Math.cos(t))];
}

/** A vector turned about a unit axis (Rodrigues' rotation). */
export function spun(p: Point3, axis: Point3, angle: number): Point3 {
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const dot = p[0] * axis[0] + p[1] * axis[1] + p[2] * axis[2];
  const x: Point3 = [
    axis[1] * p[2] - axis[2] * p[1],
    axis[2] * p[0] - axis[0] * p[2],
    axis[0] * p[1] - axis[1] * p[0],
  ];
  return [0, 1, 2].map(
    (i) => (p[i] ?? 0) * c + (x[i] ?? 0) * s + (axis[i] ?? 0) * dot * (1 - c),
  ) as unknown as Point3;
}
