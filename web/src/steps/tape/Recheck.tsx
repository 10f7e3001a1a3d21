/** What was measured and is most worth measuring again, with why; one touch leads to the reading. */
import type { AtKit } from "../../api/types";
import { micOf } from "../../core/edits";
import { useEditorPart } from "../../parts/editing";
import { MicTag } from "../../parts/MicTag";

interface Props {
  rows: AtKit["recheck"];
  onRead: (mic: string, to: string | null) => void;
}

export function Recheck({ rows, onRead }: Props) {
  const doc = useEditorPart((s) => s.still);
  if (!rows.length) return null;
  return (
    <div>
      <h3 className="text-[1rem]">Worth measuring again</h3>
      <ol aria-label="Worth measuring again" className="mt-1 space-y-1 text-[0.9rem]">
        {rows.map((r) => {
          const mic = micOf(doc, r.mic);
          return (
            <li key={r.mic} className="flex items-center gap-2" data-recheck={r.mic}>
              {mic && <MicTag mic={mic} layout={doc} />}
              <span className="min-w-0 flex-1">{r.why.join(", ")}</span>
              <button
                type="button"
                className="btn px-2 py-0.5 text-[0.8rem]"
                aria-label={`Read ${r.mic}`}
                onClick={() => onRead(r.mic, r.to)}
              >
                Read
              </button>
            </li>
          );
        })}
      </ol>
    </div>
  );
}
