/** What stands beside the charts of a step, scrolled by itself. */
import type { ReactNode } from "react";
import { Scroll } from "./fields/Scroll";

export function SidePanel({ label, children }: { label: string; children: ReactNode }) {
  return (
    <aside
      aria-label={label}
      className="relative col-start-2 row-span-2 row-start-1 border-l border-hair bg-panel"
    >
      {/* Not itself a cell of the grid: what changes in it is laid out by itself, not with the page. */}
      <div className="absolute inset-0 grid contain-strict">
        <Scroll>{children}</Scroll>
      </div>
    </aside>
  );
}
