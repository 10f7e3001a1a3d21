/** The bay: mics on the left, boxes with their sockets, tracks on the right, cables between. */
import { useMemo } from "react";
import type { Channel, Layout, Mic } from "../../api/types";
import { micOf } from "../../core/edits";
import { type Box, boxesOf, highOf, ROW, rowY, socketY } from "../../core/patchbay";
import { micColour } from "../../core/words";
import { useEditorPart, useHovered, useLit } from "../../parts/editing";
import { MicTag } from "../../parts/MicTag";
import { useLocker } from "../../parts/stock";
import { useSize } from "../../parts/useSize";
import { type Plug, usePlug } from "./usePlug";

/** Where mics, boxes and tracks stand beside each other, pixels. */
interface Columns {
  /** What the mics take, and the tracks. */
  mics: number;
  tracks: number;
  /** Where a box begins, and what it takes. */
  left: number;
  box: number;
  wide: number;
}

const CABLE = 24;

/** Names have less room where the screen is narrow; on a phone the mics have their tags alone. */
function columnsIn(width: number): Columns {
  const [mics, box, tracks] =
    width > 700 ? [212, 150, 212] : width > 500 ? [138, 150, 138] : [58, 112, 132];
  const wide = Math.max(width, mics + box + tracks + 2 * CABLE);
  return { mics, tracks, box, wide, left: mics + (wide - mics - box - tracks) / 2 };
}

const MARGIN = 12;

interface Props {
  chosen: string | null;
  onChoose: (id: string) => void;
}

export function Bay({ chosen, onChoose }: Props) {
  const doc = useEditorPart((s) => s.still);
  const locker = useLocker().data?.locker;
  const channels = doc.channels ?? [];
  const boxes = useMemo(() => boxesOf(locker?.inputs ?? [], doc.channels ?? []), [locker, doc]);
  const [ref, { width }] = useSize<HTMLDivElement>();
  const plug = usePlug(boxes, onChoose);
  const columns = columnsIn(width - 2 * MARGIN);
  const { wide, tracks } = columns;
  const high = highOf(boxes, Math.max(doc.mics.length, channels.length));
  return (
    <section ref={ref} className="overflow-auto p-0" aria-label="Mics, inputs and tracks">
      {width > 0 && (
        <div
          ref={plug.paper}
          className="relative select-none"
          style={{ width: wide, height: high, margin: MARGIN }}
        >
          <Cables {...{ doc, boxes, columns, high, chosen, plug }} />
          <Heading at={0}>Mics</Heading>
          {doc.mics.map((mic, n) => (
            <MicRow key={mic.id} {...{ mic, doc, n, plug }} wide={columns.mics} />
          ))}
          {boxes.map((box) => (
            <BoxShape key={box.first} {...{ box, columns, doc, chosen, plug }} />
          ))}
          <Heading at={wide - tracks}>Tracks</Heading>
          {channels.map((channel, n) => (
            <TrackRow
              key={channel.id}
              {...{ channel, doc, n, plug, onChoose }}
              x={wide - tracks}
              wide={tracks}
              on={chosen === channel.id}
            />
          ))}
        </div>
      )}
    </section>
  );
}

function Heading({ at, children }: { at: number; children: string }) {
  return (
    <h2 className="absolute top-0 text-[0.95rem]" style={{ left: at }}>
      {children}
    </h2>
  );
}

interface MicProps {
  mic: Mic;
  doc: Layout;
  n: number;
  wide: number;
  plug: Plug;
}

function MicRow({ mic, doc, n, wide, plug }: MicProps) {
  const { hover } = useLit();
  const hovered = useHovered();
  const own = doc.channels?.find((c) => c.mic === mic.id);
  return (
    <div
      data-patch-mic={mic.id}
      className={`absolute left-0 flex touch-none items-center gap-2 overflow-hidden ${own ? "cursor-grab" : "opacity-60"}`}
      style={{ top: rowY(n) - ROW / 2, height: ROW, width: wide - 8 }}
      onPointerEnter={() => hover(mic.id)}
      onPointerLeave={() => hover(null)}
      {...(own ? plug.grip(own.id) : {})}
    >
      <MicTag mic={mic} layout={doc} lit={hovered === mic.id} />
      <span className={wide > 100 ? "truncate text-[0.85rem]" : "sr-only"}>
        {own ? mic.name : `${mic.name}, not recorded`}
      </span>
    </div>
  );
}

const PHANTOM = {
  each: "phantom by input",
  bank: "one phantom switch",
  none: "no phantom",
} as const;

function BoxShape(props: {
  box: Box;
  columns: Columns;
  doc: Layout;
  chosen: string | null;
  plug: Plug;
}) {
  const { box, columns, doc, chosen, plug } = props;
  const numbers = Array.from({ length: box.count }, (_, k) => box.first + k);
  return (
    <fieldset
      className="absolute rounded-lg border border-hair bg-card"
      style={{ left: columns.left, top: box.y, width: columns.box, height: 30 + box.count * ROW }}
    >
      <legend className="sr-only">{box.name}</legend>
      <p className="truncate px-2 pt-0.5 text-center text-[0.85rem] leading-[1.05] font-bold">
        {box.name}
        <span className="block text-[0.72rem] font-normal text-soft">
          {box.phantom && PHANTOM[box.phantom]}
        </span>
      </p>
      {numbers.map((n) => (
        <Socket key={n} {...{ n, doc, chosen, plug }} top={30 + (n - box.first) * ROW} />
      ))}
    </fieldset>
  );
}

function Socket(props: { n: number; top: number; doc: Layout; chosen: string | null; plug: Plug }) {
  const { n, top, doc, chosen, plug } = props;
  const inside = (doc.channels ?? []).filter((c) => c.input === n);
  const twice = inside.length > 1;
  const names = inside.map((c) => c.id).join(" and ");
  return (
    <button
      type="button"
      tabIndex={-1}
      data-socket={n}
      aria-label={names ? `Input ${n}: ${names}` : `Input ${n}, free`}
      className={`absolute right-0 left-0 flex items-center justify-center gap-1.5 text-[0.8rem] hover:bg-hair/50 ${twice ? "font-bold text-hollow" : ""} ${plug.over === n ? "bg-hair" : ""}`}
      style={{ top, height: ROW }}
      onClick={() => (chosen ? plug.put(chosen, n) : inside[0] && plug.choose(inside[0].id))}
    >
      <span
        className={`grid size-4 place-items-center rounded-full border-2 ${twice ? "border-hollow" : "border-soft"}`}
      >
        {inside.length > 0 && <span className="size-1.5 rounded-full bg-ink" />}
      </span>
      <span className="num w-5 text-left">{n}</span>
    </button>
  );
}

function TrackRow(props: {
  channel: Channel;
  doc: Layout;
  n: number;
  x: number;
  wide: number;
  on: boolean;
  plug: Plug;
  onChoose: (id: string) => void;
}) {
  const { channel, n, x, wide, on, plug, onChoose } = props;
  return (
    <button
      type="button"
      data-track={channel.id}
      aria-pressed={on}
      data-input={channel.input ?? ""}
      className={`absolute flex touch-none cursor-grab items-center gap-2 overflow-hidden rounded-md px-1.5 text-left text-[0.85rem] ${on ? "bg-card font-semibold outline outline-ink" : "hover:bg-card"}`}
      style={{ left: x, top: rowY(n) - ROW / 2, height: ROW - 2, width: wide }}
      onClick={() => onChoose(channel.id)}
      onFocus={() => onChoose(channel.id)}
      onKeyDown={(e) => plug.key(e, channel)}
      {...plug.grip(channel.id)}
    >
      <span className="sr-only">Track</span>
      <span className="num w-5 shrink-0 text-right text-soft">{n + 1}</span>
      <span className="truncate">{channel.name}</span>
      {channel.input && <span className="sr-only">, input {channel.input}</span>}
      {!channel.input && (
        <span className="ml-auto shrink-0 text-[0.76rem] text-latetext">no input</span>
      )}
    </button>
  );
}

interface CablesProps {
  doc: Layout;
  boxes: Box[];
  columns: Columns;
  high: number;
  chosen: string | null;
  plug: Plug;
}

const sag = (x1: number, y1: number, x2: number, y2: number) => {
  const bend = (x2 - x1) * 0.45;
  return `M${x1} ${y1}C${x1 + bend} ${y1} ${x2 - bend} ${y2} ${x2} ${y2}`;
};

function Cables({ doc, boxes, columns, high, chosen, plug }: CablesProps) {
  const { mics, tracks, left, box, wide } = columns;
  const rows = new Map(doc.mics.map((m, n) => [m.id, n]));
  const hovered = useHovered();
  return (
    <svg className="absolute inset-0" width={wide} height={high} aria-hidden="true">
      {(doc.channels ?? []).map((c, n) => {
        const mic = micOf(doc, c.mic);
        const held = plug.held?.id === c.id ? plug.held : null;
        const y = held ? held.y : socketY(boxes, c.input);
        if (!mic || y === null) return null;
        const on = chosen === c.id || hovered === c.mic;
        const colour = micColour(mic, doc);
        const from = rowY(rows.get(c.mic) ?? 0);
        const [near, far] = held ? [held.x, held.x] : [left, left + box];
        return (
          <g key={c.id} stroke={colour} fill="none" strokeWidth={on ? 2.6 : 1.3}>
            <path d={sag(mics - 6, from, near, y)} data-cable={c.id} />
            <path
              d={sag(far, y, wide - tracks, rowY(n))}
              strokeDasharray="1 4"
              strokeLinecap="round"
            />
          </g>
        );
      })}
    </svg>
  );
}
