/** What a reading says: right, or what to do at the stand. */
import type { AskRow, Judged } from "../../api/types";
import { aloneOf } from "../../core/alone";
import { Mark } from "../../parts/Mark";
import { Words } from "../../parts/Words";
import type { Unsaid } from "./useJudged";

const LOOK = {
  good: ["together", "bg-tint"],
  off: ["late", "bg-late/15"],
  unlikely: ["ask the ear", "bg-late/15"],
  impossible: ["hollow", "bg-hollow/10"],
} as const;

/** As much as most of them take: the keys below stay where the thumb knows them. */
const ROOM = "min-h-24";

const KEEP = "keep it, it is sent later.";
const LATER = "what that does to snare and kick is said when it answers.";

interface Props {
  ask: AskRow;
  metres: number | null;
  judged: Judged | undefined;
  /** Where the server did not say: what can be said without it is. */
  unsaid: Unsaid | null;
}

export function Verdict({ ask, metres, judged, unsaid }: Props) {
  if (metres === null) return <Empty ask={ask} />;
  if (!judged && unsaid) return <Alone ask={ask} metres={metres} unsaid={unsaid} />;
  if (!judged) return <Empty ask={ask} />;
  const [mark, ground] = LOOK[judged.state];
  return (
    <div className={`${ROOM} rounded-lg p-3 ${ground}`} role="status" data-judged={judged.state}>
      <p className="flex items-center gap-2 text-[1.1rem] leading-tight font-bold">
        <Mark verdict={mark} /> {<Words of={judged.words} />}
      </p>
      <ul className="mt-1 text-[0.92rem]" aria-label="At the stand">
        {judged.moves.map((m) => (
          <li key={m.words.text}>
            <Words of={m.words} />
          </li>
        ))}
      </ul>
      {judged.spread_words && <p className="mt-1 text-[0.92rem]">{judged.spread_words}</p>}
    </div>
  );
}

function Empty({ ask }: { ask: AskRow }) {
  return (
    <p className={`${ROOM} px-1 text-[0.9rem] text-soft`}>
      {ask.state === "again"
        ? "Measure it once more: it does not fit the others, or the mic was touched since."
        : "Type what the tape reads."}
    </p>
  );
}

/** Without the server the difference is told, and about what to do; not what that does elsewhere. */
function Alone({ ask, metres, unsaid }: { ask: AskRow; metres: number; unsaid: Unsaid }) {
  const { words, moves, good, cannot } = aloneOf(ask, metres);
  return (
    <div className={`${ROOM} rounded-lg bg-late/15 p-3`} role="status" data-judged="alone">
      <p className="text-[1.1rem] font-bold">
        <Words of={words} />
      </p>
      <ul className="text-[0.92rem]" aria-label="At the stand">
        {moves.map((m) => (
          <li key={m.text}>
            <Words of={m} />
          </li>
        ))}
      </ul>
      {!cannot && (
        <p className="text-[0.9rem] text-soft">
          {unsaid === "away" ? `No answer from the server: ${good ? KEEP : LATER}` : unsaid.refused}
        </p>
      )}
    </div>
  );
}
