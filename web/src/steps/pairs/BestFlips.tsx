/** The best set of flips for all mics together, with what is held and the runner-up. */
import type { Flips } from "../../api/types";
import { locked, micOf, withMic } from "../../core/edits";
import { isFlipped, sourceName } from "../../core/words";
import { useEditor, useEditorPart } from "../../parts/editing";
import { MicTag } from "../../parts/MicTag";
import { useFlips } from "./data";

export function BestFlips() {
  const editor = useEditor();
  const doc = useEditorPart((s) => s.still);
  const found = useFlips();
  if (found.error) return <p role="alert">{found.error.message}</p>;
  const flips = found.data;
  if (!flips) return <p className="text-soft">Trying every set…</p>;
  const take = (ids: string[]) => {
    let next = doc;
    for (const id of ids) {
      const mic = micOf(next, id);
      if (mic) next = withMic(next, id, { preamp_flip: !mic.preamp_flip });
    }
    editor.commit(next, `Turned over ${ids.join(", ")}`.slice(0, 120));
  };
  const { best, runner_up: second } = flips;
  return (
    <div className={found.isPlaceholderData ? "opacity-60" : undefined}>
      <p className="font-semibold" data-flips-words>
        {flips.words}
      </p>
      <p className="mt-0.5 text-[0.85rem] text-soft">
        By body over all drums, everything in the middle. {left(flips)}
      </p>
      <ul className="mt-2 flex flex-wrap gap-1.5" aria-label="Mics: turned over, held">
        {doc.mics.map((m) => {
          const turn = best.flip.includes(m.id);
          const held = Boolean(m.locks?.includes("polarity"));
          return (
            <li
              key={m.id}
              data-turn={turn ? m.id : undefined}
              className={`flex items-center gap-1.5 rounded-lg border px-1.5 py-1 text-[0.8rem] ${turn ? "border-ink bg-card" : "border-hair"}`}
            >
              <MicTag mic={m} layout={doc} lit={turn} />
              <span className={turn ? "font-semibold" : "text-soft"}>
                {turn ? (isFlipped(m) ? "flip off" : "flip") : isFlipped(m) ? "flipped" : "as is"}
              </span>
              <label className="flex items-center gap-1 text-soft">
                <input
                  type="checkbox"
                  checked={held}
                  aria-label={`Keep the polarity of ${m.id}`}
                  onChange={(e) =>
                    editor.commit(
                      locked(doc, m.id, "polarity", e.target.checked),
                      `${e.target.checked ? "Kept" : "Freed"} the polarity of ${m.id}`,
                    )
                  }
                />
                keep
              </label>
            </li>
          );
        })}
      </ul>
      <table className="mt-3 text-[0.85rem]">
        <caption className="sr-only">What the sets give each drum against as wired</caption>
        <thead className="text-left text-soft">
          <tr>
            <th scope="col" className="pr-5 font-semibold">
              Set, gain in dB
            </th>
            {best.drums.map((d) => (
              <th key={d.source} scope="col" className="pr-4 text-right font-semibold">
                {sourceName(doc, d.source)}
              </th>
            ))}
            <th scope="col" className="pr-4 text-right font-semibold">
              Mean
            </th>
            <th scope="col" />
          </tr>
        </thead>
        <tbody>
          <SetRow name="Best" set={best} onTake={take} strong />
          {second && <SetRow name="Runner-up" set={second} onTake={take} />}
        </tbody>
      </table>
      {second && (
        <p className="mt-1.5 text-[0.85rem] text-soft">
          The runner-up turns over {second.flip.join(", ") || "nothing"} and is{" "}
          {behind(flips.behind_db ?? 0)} behind.
        </p>
      )}
    </div>
  );
}

const behind = (db: number) =>
  db < 0.01 ? "less than a hundredth of a decibel" : `${db.toFixed(2)} dB`;

function left(flips: Flips): string {
  const n = flips.unsure.length;
  if (!n) return "";
  return `${n === 1 ? "One pair" : `${n} pairs`} on a drum with an unsure sign ${n === 1 ? "is" : "are"} left out.`;
}

function SetRow(props: {
  name: string;
  set: Flips["best"];
  onTake: (ids: string[]) => void;
  strong?: boolean;
}) {
  const { name, set, onTake, strong } = props;
  const count = set.flip.length;
  return (
    <tr>
      <th scope="row" className="pr-5 text-left font-semibold">
        {name}
      </th>
      {set.drums.map((d) => (
        <td
          key={d.source}
          className="num pr-4 text-right"
          data-gain={strong ? d.source : undefined}
        >
          {signed(d.gain_db)}
        </td>
      ))}
      <td className="num pr-4 text-right font-bold">{signed(set.mean_db)}</td>
      <td>
        {count > 0 && (
          <button
            type="button"
            className={
              strong ? "btn-main px-3 py-1 text-[0.85rem]" : "btn px-3 py-1 text-[0.85rem]"
            }
            onClick={() => onTake(set.flip)}
          >
            {strong ? "Flip" : "Rather flip"} {count === 1 ? set.flip[0] : `these ${count}`}
          </button>
        )}
      </td>
    </tr>
  );
}

export function signed(db: number): string {
  const text = Math.abs(db).toFixed(1);
  return text === "0.0" ? "0.0" : `${db < 0 ? "−" : "+"}${text}`;
}
