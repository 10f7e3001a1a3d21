/** Pairs where there is room for one part of it at a time. */
import type { ReactNode } from "react";
import { Views } from "../../parts/fields/Views";
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
    <div className="relative h-full overflow-y-auto">
      <h1 className="sr-only">Pairs of mics</h1>
      {onTrial ? (
        <>
          <Trial {...onTrial} />
          {parts.one}
        </>
      ) : (
        <Views
          label="Of the pairs"
          value={part}
          options={PARTS}
          onTake={onPart}
          bar={`${UNDER_BAR} border-b border-hair`}
        >
          {parts[part]}
        </Views>
      )}
    </div>
  );
}
