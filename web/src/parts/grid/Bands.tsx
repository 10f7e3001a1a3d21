/** The row and the column of the pointed cell, lit under the grid without drawing it again. */
import { useState } from "react";

interface Lit {
  left: number;
  top: number;
  width: number;
  height: number;
}

/** Of a cell's button, where its row and column are in the wrapper that is positioned. */
export function useBands() {
  const [lit, setLit] = useState<Lit | null>(null);
  const point = (cell: HTMLElement) => {
    const at = cell.parentElement ?? cell;
    const { offsetLeft: left, offsetTop: top, offsetWidth: width, offsetHeight: height } = at;
    setLit({ left, top, width, height });
  };
  return { lit, point };
}

export function Bands({ lit }: { lit: Lit | null }) {
  if (!lit) return null;
  const band = "pointer-events-none absolute rounded bg-ring/15";
  return (
    <div aria-hidden="true" data-bands>
      <div className={band} style={{ top: lit.top, height: lit.height, left: 0, width: "100%" }} />
      <div className={band} style={{ left: lit.left, width: lit.width, top: 0, height: "100%" }} />
    </div>
  );
}
