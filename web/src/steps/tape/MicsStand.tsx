/** Every mic as it stands, what is off first. */
import type { AtKit } from "../../api/types";
import { micOf } from "../../core/edits";
import { touchedEntry } from "../../core/kitlog";
import type { AtKitLog } from "../../parts/atkit/log";
import { useEditorPart } from "../../parts/editing";
import { MicTag } from "../../parts/MicTag";
import { Words } from "../../parts/Words";

const STATE = {
  planned: ["by eye", "text-soft"],
  open: ["not sure yet", "text-latetext"],
  known: ["measured", "text-ring"],
} as const;

/** What is off its plan or not sure yet comes first, then what is measured. */
const rank = (m: AtKit["standing"]["mics"][number]) =>
  m.back.text ? 0 : m.state === "open" ? 1 : m.state === "known" ? 2 : 3;

export function MicsStand({ standing, kit }: { standing: AtKit["standing"]; kit: AtKitLog }) {
  const doc = useEditorPart((s) => s.still);
  return (
    <ul aria-label="Mics as they stand" className="space-y-2 text-[0.9rem]">
      {[...standing.mics]
        .sort((a, b) => rank(a) - rank(b))
        .map((m) => {
          const mic = micOf(doc, m.mic);
          const [words, colour] = STATE[m.state];
          return (
            <li key={m.mic} data-stands={m.mic} data-state={m.state}>
              <p className="flex flex-wrap items-center gap-2">
                {mic && <MicTag mic={mic} layout={doc} />}
                <span className={`font-semibold ${colour}`}>{words}</span>
                <span className="min-w-0 flex-1">
                  {m.state !== "planned" && <Words of={m.words} />}
                </span>
                {m.state !== "planned" && (
                  <button
                    type="button"
                    className="btn px-2 py-0.5 text-[0.8rem]"
                    aria-label={`${m.mic} was nudged`}
                    onClick={() => kit.write(touchedEntry(m.mic))}
                  >
                    Nudged
                  </button>
                )}
              </p>
              <p>
                <Words of={m.back} />
              </p>
              <p className="text-soft">
                <Words of={m.open} />
              </p>
            </li>
          );
        })}
    </ul>
  );
}
