/** Every pair of mics in one triangle: the worst verdict, or that of a chosen drum. */
import { type CSSProperties, type KeyboardEvent, type ReactNode, useMemo, useState } from "react";
import type { Board, Layout, Verdict } from "../../api/types";
import { micOf } from "../../core/edits";
import { type Cell, cellsOf } from "../../core/pairCells";
import { micColour } from "../../core/words";
import { Mark } from "../Mark";
import { Bands, useBands } from "./Bands";
import { useWalk } from "./walk";

interface Props {
  layout: Layout;
  board: Board;
  /** The mics along both sides, in the order they are shown. */
  order: readonly string[];
  /** A source, or null for the worst that matters. */
  source: string | null;
  open: { a: string; b: string } | null;
  /** Left on purpose: with nothing changed since, or flagged. */
  left: (a: string, b: string) => "kept" | "stale" | null;
  /** Whether a pair is among those looked for. */
  sought: (a: string, b: string, verdict: Verdict) => boolean;
  /** What the hits of a take say, where it wants a sign beside the plan's verdict. */
  heard: (a: string, b: string, planned: Verdict) => Verdict | null;
  onOpen: (a: string, b: string) => void;
}

/** Of a cell: smaller it is not pressed, nor has its name room, however large letters are. */
function sizes(count: number): { least: string; text: string } {
  if (count > 26) return { least: "max(15px, 0.72rem)", text: "text-[0.62rem] leading-none" };
  if (count > 20) return { least: "max(17px, 0.78rem)", text: "text-[0.68rem] leading-none" };
  return { least: "max(20px, 0.88rem)", text: "text-[0.78rem] leading-none" };
}

/** Larger it says no more. */
const MOST = "max(30px, 1rem)";
/** The name over the first column, and what lies between rows. */
const HEAD = "1.1rem";
const BETWEEN = "0.07rem";
/** Beside it where it is as wide as the screen, which there says how high it is. */
const EDGES = "2rem";
/** A letter of a name, and what lies round it. */
const LETTER_REM = 0.5;
const ROUND_REM = 0.5;

interface FitsProps {
  order: readonly string[];
  children: ReactNode;
}

/** As high as there is room for, so that the last row is seen; cells share what there is. */
function Fits({ order, children }: FitsProps) {
  const rows = Math.max(order.length - 1, 1);
  const longest = Math.max(...order.map((id) => id.length), 1);
  const names = `${2 * (longest * LETTER_REM + ROUND_REM)}rem`;
  const { least } = sizes(order.length);
  const high = (cell: string) => `calc(${HEAD} + ${rows} * (${cell} + ${BETWEEN}))`;
  const share = (whole: string, taken: string) => `(${whole} - ${taken}) / ${rows} - ${BETWEEN}`;
  const cell = `clamp(${least}, min(${share("100cqh", HEAD)}, ${share("100cqw", names)}), ${MOST})`;
  const room = {
    "--least": high(least),
    "--narrow": high(`clamp(${least}, ${share(`100vw - ${EDGES}`, names)}, ${MOST})`),
    maxHeight: high(MOST),
  } as CSSProperties;
  return (
    <div
      className="min-h-(--least) shrink-0 grow basis-0 [container-type:size] narrow:min-h-(--narrow)"
      style={room}
    >
      <div className="relative w-max" style={{ "--cell": cell } as CSSProperties}>
        {children}
      </div>
    </div>
  );
}

interface At {
  row: string;
  column: string;
}

export function PairGrid(props: Props) {
  const { layout, board, order, source, left, heard } = props;
  const [at, setAt] = useState<At | null>(null);
  const cells = useMemo(() => cellsOf(board, source), [board, source]);
  const { table, onKey } = useWalk(order.length - 1);
  const bands = useBands();
  const { text } = sizes(order.length);
  const lit = (id: string) => {
    if (at?.row !== id && at?.column !== id) return undefined;
    const mic = micOf(layout, id);
    return { color: mic && micColour(mic, layout), fontWeight: 800 };
  };
  const one = at && cells.get(`${at.row} ${at.column}`);
  return (
    <>
      <Fits order={order}>
        <Bands lit={bands.lit} />
        <table ref={table} className="relative border-separate border-spacing-0.5">
          <caption className="sr-only">
            Verdict of every pair of mics. Arrows walk; Home, End, Page up and Page down jump.
          </caption>
          <tbody>
            {order.map((b, row) => (
              <tr key={b}>
                <th
                  scope="row"
                  className={`num pr-1 text-right font-semibold ${text}`}
                  style={lit(b)}
                >
                  {row > 0 ? b : ""}
                </th>
                {order.slice(0, row).map((a, column) => {
                  const cell = cells.get(`${a} ${b}`);
                  if (!cell) return <td key={a} />;
                  return (
                    <OneCell
                      key={a}
                      {...props}
                      {...{ a, b, row, column, cell, onKey, setAt }}
                      onPoint={bands.point}
                    />
                  );
                })}
                {/* No width of its own, or the columns under it would be spread. */}
                <td aria-hidden="true">
                  <span
                    className={`num block w-0 pl-1 font-semibold whitespace-nowrap ${text}`}
                    style={lit(b)}
                  >
                    {row < order.length - 1 ? b : ""}
                  </span>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </Fits>
      <p className="mt-1 min-h-5 text-[0.82rem] text-soft" aria-hidden="true">
        {at && one
          ? said(
              at.column,
              at.row,
              one,
              left(at.column, at.row),
              heard(at.column, at.row, one.verdict),
            )
          : ""}
      </p>
    </>
  );
}

interface CellProps extends Props {
  a: string;
  b: string;
  row: number;
  column: number;
  cell: Cell;
  onKey: (e: KeyboardEvent, row: number, column: number) => void;
  setAt: (at: At) => void;
  onPoint: (cell: HTMLElement) => void;
}

/** What is said of a cell stands under the grid, under the pointer and on focus. */
function OneCell(props: CellProps) {
  const { a, b, row, column, cell, open, board } = props;
  const on = Boolean(open && [a, b].every((id) => id === open.a || id === open.b));
  const kept = props.left(a, b);
  const wanted = props.sought(a, b, cell.verdict);
  const heard = props.heard(a, b, cell.verdict);
  const edge = on ? "border-2 border-ink" : kept === "stale" ? "border-late" : "border-hair";
  const point = (e: { currentTarget: HTMLElement }) => {
    props.setAt({ row: b, column: a });
    props.onPoint(e.currentTarget);
  };
  return (
    <td>
      <button
        type="button"
        data-cell={`${row}-${column}`}
        data-pair={cellName(board, a, b)}
        data-verdict={cell.verdict}
        data-tips={cell.tips ?? undefined}
        data-left={kept ?? undefined}
        data-faint={wanted ? undefined : true}
        data-heard={heard ?? undefined}
        aria-label={said(a, b, cell, kept, heard)}
        aria-pressed={on}
        tabIndex={on || (!open && row === 1) ? 0 : -1}
        onKeyDown={(e) => props.onKey(e, row, column)}
        onFocus={point}
        onPointerEnter={point}
        onClick={() => props.onOpen(a, b)}
        className={`relative grid size-(--cell) place-items-center [&>svg]:size-[calc(var(--cell)*0.5)] rounded-[5px] border bg-panel ${edge} ${kept === "kept" ? "opacity-60" : ""}`}
      >
        <Mark verdict={cell.verdict} faint={!wanted} />
        {heard && wanted && (
          <span className="absolute -top-1 -right-1 rounded-full bg-panel p-px [&>svg]:size-[max(8px,calc(var(--cell)*0.3))]">
            <Mark verdict={heard} />
          </span>
        )}
        {cell.tips && wanted && (
          <span
            aria-hidden="true"
            className="absolute right-0.5 bottom-0 h-[1.5px] w-1/3 bg-late"
          />
        )}
      </button>
    </td>
  );
}

/** The pair as the board names it, whichever way round it is shown. */
function cellName(board: Board, a: string, b: string): string {
  return board.mic_ids.indexOf(a) < board.mic_ids.indexOf(b) ? `${a}-${b}` : `${b}-${a}`;
}

function said(
  a: string,
  b: string,
  cell: Cell,
  kept: "kept" | "stale" | null,
  heard: Verdict | null,
): string {
  const left =
    kept === "stale" ? "left on purpose, but changed since, " : kept ? "left on purpose, " : "";
  const tip = cell.tips ? `; could tip to ${cell.tips}` : "";
  const recorded = heard ? `; as recorded ${heard}` : "";
  return `${a} with ${b}: ${left}${cell.verdict}, ${cell.drum}${tip}${recorded}`;
}
