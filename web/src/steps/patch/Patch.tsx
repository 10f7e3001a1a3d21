/** Patch: every mic through its input to its track, and what is wrong on the way. */
import { useState } from "react";
import { useEditorPart } from "../../parts/editing";
import { Bay } from "./Bay";
import { Boxes } from "./Boxes";
import { ForMe } from "./ForMe";
import { TrackDetail } from "./TrackDetail";

export function Patch() {
  const mics = useEditorPart((s) => s.still.mics.length);
  const [chosen, choose] = useState<string | null>(null);
  if (!mics) return <p className="p-6">Nothing to patch yet. Add mics on Place, then come back.</p>;
  return (
    <div className="grid h-full grid-cols-[minmax(0,1fr)_330px]">
      <h1 className="sr-only">Patch</h1>
      <Bay chosen={chosen} onChoose={choose} />
      <aside
        aria-label="The patch in words"
        className="space-y-4 overflow-y-auto border-l border-hair bg-panel p-4"
      >
        <ForMe onChoose={choose} />
        <TrackDetail id={chosen} onChoose={choose} />
        <Boxes />
      </aside>
    </div>
  );
}
