/** Units of mics against each other: the worst of their pairs in one cell, which opens to them. */
import { type KeyboardEvent, useMemo, useState } from "react";
import type { Board, Verdict } from "../../api/types";
import { type Unit, type UnitCell, unitCells } from "../../core/pairCells";
import { Mark } from "../Mark";
import { Bands, useBands } from "./Bands";
import { useWalk } from "./walk";

interface Props {
  board: Board;
  source: string | null;
  /** Whether a pair of two units is among those looked for. */
  sought: (one: Unit, two: Unit, verdict: Verdict) => boolean;
  onOpen: (one: Unit, two: Unit, cell: UnitCell) => void;
}

/** Thirty mics are a dozen units: the whole triangle stays on the screen. */
const cellOf = (units: number) => (units > 16 ? 18 : units > 11 ? 23 : 28);

export function UnitGrid({ board, source, sought, onOpen }: Props) {
  const { units } = board;
  const cells = useMemo(() => unitCells(board, source), [board, source]);
  const { table, onKey } = useWalk(units.length - 1);
  const bands = useBands();
  const [said, setSaid] = useState("");
  return (
    <div>
      <div className="relative w-max">
        <Bands lit={bands.lit} />
        <table ref={table} className="relative border-separate border-spacing-0.5">
          <caption className="sr-only">
            Worst verdict of every two units of mics, and within each. Arrows walk; Home, End, Page
            up and Page down jump.
          </caption>
          <tbody>
            {units.map((two, row) => (
              <UnitRow
                key={two.name}
                {...{ units, two, row, cells, sought, onOpen, onKey }}
                onPoint={(at, words) => {
                  bands.point(at);
                  setSaid(words);
                }}
              />
            ))}
          </tbody>
        </table>
      </div>
      <p className="mt-1 min-h-5 text-[0.82rem] text-soft" aria-hidden="true">
        {said}
      </p>
    </div>
  );
}

interface RowProps extends Pick<Props, "sought" | "onOpen"> {
  units: Unit[];
  two: Unit;
  row: number;
  cells: Map<string, UnitCell>;
  onKey: CellProps["onKey"];
  onPoint: CellProps["onPoint"];
}

function UnitRow({ units, two, row, cells, sought, ...rest }: RowProps) {
  return (
    <tr>
      <th scope="row" className="pr-1.5 text-right text-[0.78rem] font-semibold">
        {two.name}
      </th>
      {units.slice(0, row + 1).map((one, column) => {
        const cell = cells.get(`${one.name} ${two.name}`);
        if (!cell) return <td key={one.name} />;
        return (
          <OneCell
            key={one.name}
            {...{ one, two, cell, row, column, ...rest }}
            size={cellOf(units.length)}
            faint={!sought(one, two, cell.verdict)}
          />
        );
      })}
      {row < units.length - 1 && (
        <td aria-hidden="true">
          <span className="block w-0 pl-1 text-[0.72rem] whitespace-nowrap text-soft">
            {two.name}
          </span>
        </td>
      )}
    </tr>
  );
}

interface CellProps {
  one: Unit;
  two: Unit;
  cell: UnitCell;
  row: number;
  column: number;
  size: number;
  faint: boolean;
  onKey: (e: KeyboardEvent, row: number, column: number) => void;
  onOpen: Props["onOpen"];
  onPoint: (at: HTMLElement, words: string) => void;
}

function OneCell(props: CellProps) {
  const { one, two, cell, row, column, size, faint, onKey, onOpen, onPoint } = props;
  const words = told(one, two, cell);
  const point = (e: { currentTarget: HTMLElement }) => onPoint(e.currentTarget, words);
  return (
    <td>
      <button
        type="button"
        data-cell={`${row}-${column}`}
        data-units={`${one.name}|${two.name}`}
        data-verdict={cell.verdict}
        data-marked={cell.marked}
        data-faint={faint || undefined}
        aria-label={words}
        tabIndex={row === 0 || (row === 1 && column === 0) ? 0 : -1}
        onKeyDown={(e) => onKey(e, row, column)}
        onFocus={point}
        onPointerEnter={point}
        onClick={() => onOpen(one, two, cell)}
        style={{ width: size, height: size }}
        className={`relative grid place-items-center rounded-[5px] border border-hair ${one === two ? "bg-paper" : "bg-panel"}`}
      >
        <Mark verdict={cell.verdict} size={Math.round(size * 0.46)} faint={faint} />
        {cell.marked > 1 && !faint && (
          <span className="num absolute right-0.5 bottom-0 text-[0.56rem] leading-none text-soft">
            {cell.marked}
          </span>
        )}
      </button>
    </td>
  );
}

function told(one: Unit, two: Unit, cell: UnitCell): string {
  const where = one === two ? `Within ${one.name}` : `${one.name} with ${two.name}`;
  const more = cell.marked > 1 ? `; ${cell.marked} pairs want something` : "";
  return `${where}: ${cell.verdict}, ${cell.a} ${cell.b} on ${cell.drum}${more}`;
}
