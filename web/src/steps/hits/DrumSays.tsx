/** One drum at a time: its hits laid over each other, and every pair on it as measured. */
import { useState } from "react";
import type { DrumHits, TakeTold } from "../../api/types";
import { Segmented } from "../../parts/fields/Segmented";
import { HitWaves } from "./HitWaves";
import { PairsHeard } from "./PairsHeard";

interface Props {
  take: number;
  told: TakeTold;
  job: number | null;
}

export function DrumSays({ take, told, job }: Props) {
  const [chosen, choose] = useState<string | null>(null);
  const drum = told.drums.find((d) => d.source === chosen) ?? told.drums[0];
  if (!drum) return <p className="text-soft">No drum was hit that can be read.</p>;
  return (
    <div className="space-y-3">
      <Segmented
        label="Drum"
        small
        value={drum.source}
        options={told.drums.map((d) => [d.source, d.name] as const)}
        onTake={choose}
      />
      <Facts drum={drum} />
      <div className="grid gap-4 min-[1120px]:grid-cols-[minmax(0,1fr)_minmax(0,380px)]">
        <HitWaves {...{ take, job, drum }} />
        <PairsHeard pairs={told.pairs.filter((p) => p.source === drum.source)} />
      </div>
    </div>
  );
}

function Facts({ drum }: { drum: DrumHits }) {
  const pitch = drum.fundamental_hz && `${drum.fundamental_hz.toFixed(1)} Hz, ${drum.note}`;
  return (
    <p className="text-[0.92rem]" data-drum={drum.source}>
      {drum.hits} {drum.hits === 1 ? "hit" : "hits"}, told against <b>{drum.own}</b>
      {pitch && (
        <>
          ; sounds at <span className="num">{pitch}</span>
        </>
      )}
      . {drum.words}
    </p>
  );
}
