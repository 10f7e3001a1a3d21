/** Pairs where there is room for one part of it at a time. */
import type { ReactNode } from "react";
import { Views } from "../../parts/fields/Views";
import { Later } from "../../parts/Later";
import { UNDER_BAR } from "../../parts/narrow";
import { Trial, type TrialProps } from "./Trial";

const PARTS = [
  ["look", "Overview"],
  ["every", "Every pair"],
  ["one", "One pair"],
] as const;
export type Part = (typeof PARTS)[number][0];

interface InTurnProps {
  parts: Record<Part, ReactNode>;
  part: Part;
  onPart: (part: Part) => void;
  onTrial: TrialProps | null;
}

/** Where there is room for one of them: a pair that is opened comes forward, as does a trial. */
export function InTurn({ parts, part, onPart, onTrial }: InTurnProps) {
  return (
    <div className="h-full">
      <h1 className="sr-only">Pairs of mics</h1>
      {onTrial && (
        <div className={SCROLLED}>
          <Trial {...onTrial} />
          {parts.one}
        </div>
      )}
      {/* What was looked for among the pairs, and where that was, is there again after a look at one. */}
      <div className="h-full" hidden={onTrial !== null}>
        <Views
          label="Of the pairs"
          value={part}
          options={PARTS}
          onTake={onPart}
          bar={`${UNDER_BAR} border-b border-hair`}
          className="grid h-full grid-rows-[auto_minmax(0,1fr)]"
          view="min-h-0"
        >
          {part === "look" && <div className={SCROLLED}>{parts.look}</div>}
          <div className={SCROLLED} hidden={part !== "every"}>
            <Later>{parts.every}</Later>
          </div>
          {part === "one" && !onTrial && <div className={SCROLLED}>{parts.one}</div>}
        </Views>
      </div>
    </div>
  );
}

const SCROLLED = "relative h-full overflow-y-auto";
