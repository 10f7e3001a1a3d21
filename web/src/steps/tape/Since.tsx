/** What was touched after it was measured: what is to be done there, and what has moved since. */
import type { AtKit } from "../../api/types";
import { micOf } from "../../core/edits";
import type { AtKitLog } from "../../parts/atkit/log";
import { useEditorPart } from "../../parts/editing";
import { MicTag } from "../../parts/MicTag";
import { Words } from "../../parts/Words";

export function Since({ rows, kit }: { rows: AtKit["since"]; kit: AtKitLog }) {
  const doc = useEditorPart((s) => s.still);
  if (!rows.length) return null;
  return (
    <div>
      <h3 className="text-[1rem]">Touched since the last check</h3>
      <ul aria-label="Touched since the last check" className="mt-1 space-y-1 text-[0.9rem]">
        {rows.map((r) => {
          const mic = micOf(doc, r.mic);
          return (
            <li key={r.mic} data-since={r.mic}>
              <p className="flex flex-wrap items-center gap-2">
                {mic && <MicTag mic={mic} layout={doc} />}
                <span className="min-w-0 flex-1">
                  <Words of={r.words} />
                </span>
                {!r.read_again && (
                  <button
                    type="button"
                    className="btn px-2 py-0.5 text-[0.8rem]"
                    aria-label={`${r.mic} was not touched`}
                    onClick={() => kit.strike(r.key)}
                  >
                    Not touched
                  </button>
                )}
              </p>
              <p>
                <Words of={r.back} />
              </p>
            </li>
          );
        })}
      </ul>
    </div>
  );
}
