/** From speaker to speaker, every drum on its place; names that would meet stand one above the other. */
import type { Layout, PictureRow } from "../../api/types";
import { drumColour, sourceName } from "../../core/words";

const WIDE = 640;
const HIGH = 78;
const ROW = 15;

const xOf = (percent: number) => WIDE / 2 + (percent / 100) * (WIDE / 2 - 46);

/** Every drum that has a place, from left to right, each name in a row where it meets no other. */
function placedRows(picture: PictureRow, doc: Layout) {
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
  const { rows, high } = placedRows(picture, doc);
  const floor = high - 16;
  return (
    <svg
      viewBox={`0 0 ${WIDE} ${high}`}
      className="mt-1 block w-full"
      role="img"
      aria-label={`${picture.name} from left to right: ${rows.map((p) => p.name).join(", ")}`}
    >
      <Floor floor={floor} high={high} />
      {rows.map((s) => (
        <Post key={s.source} placed={s} doc={doc} floor={floor} />
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

function Floor({ floor, high }: { floor: number; high: number }) {
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

function Post({ placed: s, doc, floor }: { placed: Placed; doc: Layout; floor: number }) {
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
