/** From the snare to the wall in each direction, as the core found them. */
import { memo, useLayoutEffect, useSyncExternalStore } from "react";
import type { Room } from "../../../api/types";
import { lengthWithUnit, type Ruler } from "../../../core/units";
import type { View } from "../../../core/view";
import { type Along, type PlanProps, snareAt, useCarried } from "./pose";

/** The words stand this far along, nearer the wall than the kit. */
const ALONG = 0.72;

interface Props extends Pick<PlanProps, "board" | "hand"> {
  /** As it is kept. */
  room: Room;
  view: View;
}

type WallName = "left" | "right" | "back" | "front";

interface Way {
  /** Where the wall is on the paper that way, pixels: it stays there while the kit is moved. */
  wall: number;
  far: number;
}

const isUpright = (name: WallName) => name === "back" || name === "front";
/** On the paper. */
const SIGNS: Record<WallName, number> = { left: -1, right: 1, back: 1, front: -1 };

/** None outside, or where it is not known where the hand has the kit. */
function wayOf(name: WallName, { board, hand, view, room }: Props): Way | null {
  const told = hand.get();
  const far = (told?.here ?? board?.spots.here)?.walls_m[name];
  if (far === undefined) return null;
  const from = snareAt(told?.room ?? room, view)[isUpright(name) ? 1 : 0];
  // Rounded, so that a wall that stands is not drawn anew for its last digit.
  return { far, wall: Number((from + SIGNS[name] * far * view.scale).toFixed(2)) };
}

/** One thing of what a hand is told; what is drawn of it is drawn anew only when that changes. */
const useTold = <T extends string | boolean>({ hand }: Props, pick: () => T): T =>
  useSyncExternalStore(hand.subscribe, pick);

/** They lie under the kit: one right across the room, one along it. */
export const Lines = memo(function Lines(props: Props) {
  return (
    <>
      <Line {...props} ends={["left", "right"]} />
      <Line {...props} ends={["back", "front"]} />
    </>
  );
});

const sideways: Along = (now, kept) => [now[0] - kept[0], 0];
const upAndDown: Along = (now, kept) => [0, now[1] - kept[1]];

/** From wall to wall through the snare: with the kit it goes sideways only, as its ends stand. */
function Line({ ends, ...props }: Props & { ends: [WallName, WallName] }) {
  const { room, view } = props;
  const upright = isUpright(ends[0]);
  const sheet = useCarried<SVGSVGElement>(room, view, upright ? sideways : upAndDown);
  const [x, y] = snareAt(room, view);
  // A sheet lies on whole pixels, whatever it is told.
  const [left, top] = [Math.floor(x), Math.floor(y)];
  const d = useTold(props, () => {
    const [from, to] = ends.map((name) => wayOf(name, props));
    if (!from || !to) return "";
    return upright
      ? `M${x - left} ${from.wall - top}V${to.wall - top}`
      : `M${from.wall - left} ${y - top}H${to.wall - left}`;
  });
  return (
    <svg
      ref={sheet}
      aria-hidden="true"
      width="1"
      height="1"
      className="pointer-events-none absolute overflow-visible will-change-transform"
      style={{ left, top }}
    >
      {d && <path d={d} stroke="var(--snare)" strokeDasharray="2 4" />}
    </svg>
  );
}

interface LabelProps extends Props {
  name: WallName;
  ruler: Ruler;
}

/** They lie over it, each on a sheet of its own that is put elsewhere without being drawn. */
export const Labels = memo(function Labels(props: Omit<LabelProps, "name">) {
  return (Object.keys(SIGNS) as WallName[]).map((name) => (
    <KnownLabel key={name} {...props} name={name} />
  ));
});

const KnownLabel = (props: LabelProps) =>
  useTold(props, () => wayOf(props.name, props) !== null) && <Label {...props} />;

/** As high as a label is, and as wide as one of its letters, pixels. */
const HIGH = 17;
const LETTER = 7;
const wideFor = (says: string) => says.length * LETTER + 8;

/** Written with each answer where it stands, and put where the hand is: drawn anew for neither. */
function Label(props: LabelProps) {
  const { room, view, name, ruler, hand } = props;
  const says = () => lengthWithUnit(wayOf(name, props)?.far ?? 0, ruler);
  const along: Along = ([x, y]) => {
    const { wall } = wayOf(name, props) ?? { wall: 0 };
    const toWall = (from: number) => from + (wall - from) * ALONG;
    const [cx, cy] = isUpright(name) ? [x, toWall(y)] : [toWall(x), y];
    return [cx - wideFor(says()) / 2, cy - HIGH / 2];
  };
  const sheet = useCarried<HTMLSpanElement>(room, view, along, hand);
  useLayoutEffect(() => {
    const words = document.createTextNode("");
    const write = () => {
      const now = says();
      if (words.data === now) return;
      words.data = now;
      sheet.current?.style.setProperty("width", `${wideFor(now)}px`);
    };
    write();
    sheet.current?.replaceChildren(words);
    return hand.subscribe(write);
  });
  return (
    <span
      ref={sheet}
      aria-hidden="true"
      className="num pointer-events-none absolute top-0 left-0 rounded bg-card/92 text-center text-[11.5px] leading-[17px] font-semibold text-snare contain-strict will-change-transform"
      style={{ height: HIGH }}
      data-wall={name}
    />
  );
}
