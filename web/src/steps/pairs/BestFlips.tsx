/** The best set of flips for all mics together, with what is held and the runner-up. */
import type { Flips, Layout, Mic } from "../../api/types";
import { dbText } from "../../core/units";
import { isFlipped, sourceName } from "../../core/words";
import { useEditorPart } from "../../parts/editing";
import { Tick } from "../../parts/fields/Tick";
import { useChangeMic, useTake } from "../../parts/hands";
import { MicTag } from "../../parts/MicTag";
import { useWorklist } from "../../parts/worklist";
import { lockedWith } from "../place/mic/Aim";
import { useFlips } from "./data";

export function BestFlips() {
  const doc = useEditorPart((s) => s.still);
  const found = useFlips();
  if (found.error && !found.data) return <p role="alert">{found.error.message}</p>;
  const flips = found.data;
  if (!flips) return <p className="text-soft">Trying every set…</p>;
  const worth = flips.worth ? flips.best.flip : [];
  return (
    <div className={found.isPlaceholderData ? "opacity-60" : undefined}>
      <p className="font-semibold" data-flips-words>
        {flips.words}
      </p>
      <p className="mt-0.5 text-[0.85rem] text-soft">
        By body over all drums, everything in the middle. {left(flips)}
      </p>
      <ByTheList best={worth} />
      <ul className="mt-2 flex flex-wrap gap-1.5" aria-label="Mics: turned over, held">
        {doc.mics.map((m) => (
          <OneMic key={m.id} mic={m} doc={doc} turn={worth.includes(m.id)} />
        ))}
      </ul>
      <div className="narrow:overflow-x-auto">
        <Sets flips={flips} doc={doc} />
      </div>
      {flips.runner_up && (
        <p className="mt-1.5 text-[0.85rem] text-soft">
          The runner-up turns over {flips.runner_up.flip.join(", ") || "nothing"} and is{" "}
          {behind(flips.behind_db ?? 0)} behind.
        </p>
      )}
    </div>
  );
}

/** What the list to do flips, where that is another set, and why. */
function ByTheList({ best }: { best: string[] }) {
  const list = useWorklist();
  if (!list.data || list.isPlaceholderData) return null;
  const flip = list.data.lines.filter((l) => l.kind === "flip").flatMap((l) => l.of);
  if ([...flip].sort().join() === [...best].sort().join()) return null;
  return (
    <p className="mt-0.5 text-[0.85rem]" data-by-the-list>
      {flip.length ? `To do flips ${flip.join(", ")}: ` : "To do flips nothing: "}
      {list.data.heard && `with what the take ${list.data.heard} has heard, `}
      {WHY}
    </p>
  );
}

const WHY =
  "within 0.3 dB the fewest switches, pairs whole, top and bottom together, and nothing off snare or kick.";

function turnWords(flipped: boolean, turn: boolean): string {
  if (turn) return flipped ? "flip off" : "flip";
  return flipped ? "flipped" : "as is";
}

function OneMic({ mic, doc, turn }: { mic: Mic; doc: Layout; turn: boolean }) {
  const change = useChangeMic();
  return (
    <li
      data-turn={turn ? mic.id : undefined}
      className={`flex items-center gap-1.5 rounded-lg border px-1.5 py-1 text-[0.8rem] ${turn ? "border-ink bg-card" : "border-hair"}`}
    >
      <MicTag mic={mic} layout={doc} lit={turn} />
      <span className={turn ? "font-semibold" : "text-soft"}>
        {turnWords(isFlipped(mic, doc), turn)}
      </span>
      <Tick
        className="items-center text-soft"
        said={`Keep the polarity of ${mic.id}`}
        checked={Boolean(mic.locks?.includes("polarity"))}
        onTake={(on) =>
          change(
            mic.id,
            { locks: lockedWith(mic, "polarity", on) },
            { why: `${on ? "Kept" : "Freed"} the polarity of ${mic.id}` },
          )
        }
      >
        keep
      </Tick>
    </li>
  );
}

function Sets({ flips, doc }: { flips: Flips; doc: Layout }) {
  const take = useTake();
  const flip = (mics: string[]) => void take({ do: "flip", mics });
  return (
    <table className="mt-3 text-[0.85rem]">
      <caption className="sr-only">What the sets give each drum against as wired</caption>
      <thead className="text-left text-soft">
        <tr>
          <th scope="col" className="pr-5 font-semibold">
            Set, gain in dB
          </th>
          {flips.best.drums.map((d) => (
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
        <SetRow name="Best" set={flips.best} onTake={flip} strong={flips.worth} />
        {flips.runner_up && <SetRow name="Runner-up" set={flips.runner_up} onTake={flip} />}
      </tbody>
    </table>
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
          data-gain={name === "Best" ? d.source : undefined}
        >
          {dbText(d.gain_db)}
        </td>
      ))}
      <td className="num pr-4 text-right font-bold">{dbText(set.mean_db)}</td>
      <td className="py-0.5">
        {count > 0 && (
          <button
            type="button"
            className={
              strong ? "btn-main px-3 py-1 text-[0.85rem]" : "btn px-3 py-1 text-[0.85rem]"
            }
            onClick={() => onTake(set.flip)}
          >
            {name === "Best" ? "Flip" : "Rather flip"}{" "}
            {count === 1 ? set.flip[0] : `these ${count}`}
          </button>
        )}
      </td>
    </tr>
  );
}
