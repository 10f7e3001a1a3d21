/** From speaker to speaker, every drum on its place; names that would meet stand one above the other. */
import { useMemo } from "react";
import type { Layout, PictureRow } from "../../api/types";
import { drumColour, sourceName } from "../../core/words";
import { useNarrow } from "../../parts/narrow";

/** At a desk, and on a phone: its letters are not to be smaller there. */
const WIDE = 640;
const ON_A_PHONE = 390;
const HIGH = 78;
const ROW = 15;

type XOf = (percent: number) => number;

const across =
  (wide: number): XOf =>
  (percent) =>
    wide / 2 + (percent / 100) * (wide / 2 - 46);

/** Every drum that has a place, from left to right, each name in a row where it meets no other. */
function placedRows(picture: PictureRow, doc: Layout, xOf: XOf) {
  const ends: number[] = [];
  const rows = picture.sources
    .filter((s) => s.placed)
    .map((s) => ({ ...s, name: sourceName(doc, s.source) }))
    .sort((a, b) => a.percent - b.percent)
    .map((s) => {
      const half = s.name.length * 2.9 + 6;
      let row = ends.findIndex((end) => end < xOf(s.percent) - half);
      if (row < 0) row = ends.length;
      ends[row] = xOf(s.percent) + half;
      return { ...s, row };
    });
  return { rows, high: HIGH + Math.max(0, ends.length - 3) * ROW };
}

type Placed = ReturnType<typeof placedRows>["rows"][number];

export function Stage({ picture, doc }: { picture: PictureRow; doc: Layout }) {
  const wide = useNarrow() ? ON_A_PHONE : WIDE;
  const xOf = useMemo(() => across(wide), [wide]);
  const { rows, high } = placedRows(picture, doc, xOf);
  const floor = high - 16;
  return (
    <svg
      viewBox={`0 0 ${wide} ${high}`}
      className="mt-1 block w-full"
      role="img"
      aria-label={`${picture.name} from left to right: ${rows.map((p) => p.name).join(", ")}`}
    >
      <Floor {...{ floor, high, xOf }} />
      {rows.map((s) => (
        <Post key={s.source} placed={s} {...{ doc, floor, xOf }} />
      ))}
      {rows.map((s) => (
        <text
          key={s.source}
          data-stage={s.source}
          x={xOf(s.percent)}
          y={floor - 12 - s.row * ROW}
          fontSize="10.5"
          fontWeight="600"
          textAnchor="middle"
          fill="var(--ink)"
          stroke="var(--paper)"
          strokeWidth="4"
          paintOrder="stroke"
        >
          {s.name}
        </text>
      ))}
    </svg>
  );
}

function Floor({ floor, high, xOf }: { floor: number; high: number; xOf: XOf }) {
  return (
    <>
      <line
        x1={xOf(-100)}
        x2={xOf(100)}
        y1={floor}
        y2={floor}
        stroke="var(--ink)"
        strokeWidth="1.2"
      />
      {[-100, -50, 0, 50, 100].map((p) => (
        <g key={p}>
          <line x1={xOf(p)} x2={xOf(p)} y1={floor - 4} y2={floor + 4} stroke="var(--ink)" />
          <text
            x={xOf(p)}
            y={high - 1}
            fontSize="9.5"
            textAnchor="middle"
            className="num"
            fill="var(--soft)"
          >
            {p === 0 ? "middle" : `${Math.abs(p * 0.3).toFixed(0)}° ${p < 0 ? "left" : "right"}`}
          </text>
        </g>
      ))}
    </>
  );
}

interface PostProps {
  placed: Placed;
  doc: Layout;
  floor: number;
  xOf: XOf;
}

function Post({ placed: s, doc, floor, xOf }: PostProps) {
  const drum = doc.kit.drums.find((d) => d.id === s.source);
  const colour = drum ? drumColour(drum.kind) : "var(--cymbal)";
  const x = xOf(s.percent);
  return (
    <g>
      <line
        x1={x}
        x2={x}
        y1={floor}
        y2={floor - 10 - s.row * ROW}
        stroke={colour}
        strokeWidth="1.4"
      />
      <circle cx={x} cy={floor} r="4" fill={colour} />
    </g>
  );
}
