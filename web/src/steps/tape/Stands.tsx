/** Where everything stands by the tape, against the plan, and what that changes. */
import type { AtKit } from "../../api/types";
import { micOf } from "../../core/edits";
import { useEditor, useEditorPart } from "../../parts/editing";
import { Mark } from "../../parts/Mark";
import { MicTag } from "../../parts/MicTag";
import { StandsPlan } from "./StandsPlan";
import { TakenRows } from "./TakenRows";
import type { AtKitLog } from "./useAtKit";

interface Props {
  answer: AtKit;
  /** Nothing was changed since: only then may it become the plan. */
  current: boolean;
  kit: AtKitLog;
}

export function Stands({ answer, current, kit }: Props) {
  const { standing, compared } = answer;
  return (
    <section
      aria-label="Where it stands"
      className="gap-x-8 space-y-4 min-[760px]:columns-2 *:break-inside-avoid"
    >
      <p className="font-semibold" data-stands-words>
        {standing.words}
      </p>
      <StandsPlan standing={standing} />
      <MakePlan answer={answer} current={current} />
      <Mics standing={standing} kit={kit} />
      <Judged compared={compared} />
      <TakenRows standing={standing} kit={kit} />
      {standing.gone.length > 0 && (
        <div className="text-[0.88rem]">
          <h3 className="font-semibold">Kept, and of nothing that is in the layout</h3>
          <ul>
            {standing.gone.map((words) => (
              <li key={words}>{words}</li>
            ))}
          </ul>
        </div>
      )}
    </section>
  );
}

/** One action, with undo: what stands becomes what is planned. */
function MakePlan({ answer, current }: Pick<Props, "answer" | "current">) {
  const editor = useEditor();
  const measured = answer.standing.mics.some((m) => m.state !== "planned");
  if (!measured) return null;
  return (
    <button
      type="button"
      className="btn"
      disabled={!current}
      onClick={() => editor.commit(answer.standing.layout, "Made what stands the plan")}
    >
      Make it the plan
    </button>
  );
}

const STATE = {
  planned: ["by eye", "text-soft"],
  open: ["not sure yet", "text-latetext"],
  known: ["measured", "text-ring"],
} as const;

/** What is off its plan or not sure yet comes first, then what is measured. */
const rank = (m: AtKit["standing"]["mics"][number]) =>
  m.back_words ? 0 : m.state === "open" ? 1 : m.state === "known" ? 2 : 3;

function Mics({ standing, kit }: { standing: AtKit["standing"]; kit: AtKitLog }) {
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
                <span className="min-w-0 flex-1">{m.state !== "planned" && m.words}</span>
                {m.state !== "planned" && (
                  <button
                    type="button"
                    className="btn px-2 py-0.5 text-[0.8rem]"
                    aria-label={`${m.mic} was nudged`}
                    onClick={() =>
                      kit.write({ what: "touched", mic: m.mic, to: null, metres: null })
                    }
                  >
                    Nudged
                  </button>
                )}
              </p>
              {m.back_words && <p>{m.back_words}</p>}
              {m.open_words && <p className="text-soft">{m.open_words}</p>}
            </li>
          );
        })}
    </ul>
  );
}

function Judged({ compared }: { compared: AtKit["compared"] }) {
  return (
    <div>
      <h3 className="text-[1rem]">Pairs, as they stand</h3>
      <p className="text-[0.9rem]" data-compared>
        {compared.words}
      </p>
      <ul aria-label="Verdicts as they stand" className="mt-1 space-y-1 text-[0.88rem]">
        {compared.pairs.slice(0, MOST_ROWS).map((p) => (
          <li key={`${p.a} ${p.b}`} className="flex flex-wrap items-center gap-1.5">
            <b className="num w-16">
              {p.a}–{p.b}
            </b>
            <Verdict of={p.planned} />
            {p.stands !== p.planned && (
              <>
                <span>planned, now</span> <Verdict of={p.stands} now />
              </>
            )}
            {p.could && <span className="text-soft">could be {p.could}</span>}
            <span className="num text-soft">
              {p.delay_ms.toFixed(2)} ± {p.half_ms.toFixed(2)} ms
            </span>
          </li>
        ))}
      </ul>
      {compared.pairs.length > MOST_ROWS && (
        <p className="text-[0.85rem] text-soft">
          and {compared.pairs.length - MOST_ROWS} more; measure on, and most of them settle.
        </p>
      )}
    </div>
  );
}

function Verdict({ of, now = false }: { of: Pair["planned"]; now?: boolean }) {
  return (
    <span className={`inline-flex items-center gap-1 ${now ? "font-semibold" : ""}`}>
      <Mark verdict={of} /> {of}
    </span>
  );
}

type Pair = AtKit["compared"]["pairs"][number];
const MOST_ROWS = 12;
