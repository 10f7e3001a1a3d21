/** Patch: every mic through its input to its track, and what is wrong on the way. */
import { useState } from "react";
import { useEditorPart } from "../../parts/editing";
import { Segmented } from "../../parts/fields/Segmented";
import { NoMics } from "../../parts/NoMics";
import { OVER, UNDER, useNarrow } from "../../parts/narrow";
import { useLocker } from "../../parts/stock";
import { Bay } from "./Bay";
import { ForMe } from "./ForMe";
import { BoxList } from "./floor/BoxList";
import { Floor } from "./floor/Floor";
import { TrackDetail } from "./TrackDetail";

type Where = "sockets" | "floor";

const VIEWS = [
  ["sockets", "Sockets and tracks"],
  ["floor", "Boxes on the floor"],
] as const;

const BESIDE = "relative overflow-y-auto border-l border-hair bg-panel";

export function Patch() {
  const mics = useEditorPart((s) => s.still.mics.length);
  const boxes = useLocker().data?.locker.inputs?.length ?? 0;
  const [chosen, choose] = useState<string | null>(null);
  const [pointed, point] = useState<string | null>(null);
  const [asked, ask] = useState<Where>("sockets");
  const narrow = useNarrow();
  if (!mics) return <NoMics words="Nothing to patch yet." />;
  const where = boxes ? asked : "sockets";
  return (
    <div className={narrow ? OVER : "grid h-full grid-cols-[minmax(0,1fr)_330px]"}>
      <h1 className="sr-only">Patch</h1>
      <div className="grid min-h-0 min-w-0 grid-rows-[auto_minmax(0,1fr)]">
        {boxes > 0 && (
          <div className="px-3 pt-2">
            <Segmented small label="What is shown" value={where} options={VIEWS} onTake={ask} />
          </div>
        )}
        <div className="row-start-2 grid min-h-0">
          {where === "floor" ? <Floor lit={pointed} /> : <Bay chosen={chosen} onChoose={choose} />}
        </div>
      </div>
      <aside aria-label="The patch in words" className={`space-y-4 p-4 ${narrow ? UNDER : BESIDE}`}>
        {where === "floor" ? (
          <BoxList onPoint={point} />
        ) : (
          <>
            <ForMe onChoose={choose} />
            <TrackDetail id={chosen} onChoose={choose} />
          </>
        )}
      </aside>
    </div>
  );
}
