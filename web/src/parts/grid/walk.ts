/** Keys walk from cell to cell of a triangle; with its diagonal where that has cells too. */
import { type KeyboardEvent, useRef } from "react";

/** Where a key leads from a cell; the triangle has no others. */
function target(key: string, row: number, column: number, last: number): [number, number] | null {
  const to: Record<string, [number, number]> = {
    ArrowUp: [row - 1, column],
    ArrowDown: [row + 1, column],
    ArrowLeft: [row, column - 1],
    ArrowRight: [row, column + 1],
    Home: [row, 0],
    End: [row, row - 1],
    PageUp: [column + 1, column],
    PageDown: [last, column],
  };
  return to[key] ?? null;
}

export function useWalk(last: number) {
  const table = useRef<HTMLTableElement>(null);
  const onKey = (e: KeyboardEvent, row: number, column: number) => {
    const next = target(e.key, row, column, last);
    if (!next) return;
    e.preventDefault();
    table.current?.querySelector<HTMLButtonElement>(`[data-cell="${next[0]}-${next[1]}"]`)?.focus();
  };
  return { table, onKey };
}
