/** What to do now: a few lines in the order they are done, each tried, taken, put off or dismissed. */
import type { Layout, Worklist } from "../../../api/types";
import { useEditorPart } from "../../../parts/editing";
import { useWorklist } from "../../../parts/worklist";
import type { Trying } from "../useTrial";
import { Aside } from "./Aside";
import { OneLine } from "./OneLine";
import type { Leads } from "./useWhere";
import { gainsText } from "./words";

interface Props extends Leads {
  trial: Trying;
}

export function ToDo({ trial, onBalance, onOpened }: Props) {
  const found = useWorklist();
  if (found.error && !found.data) return <p role="alert">{found.error.message}</p>;
  const list = found.data;
  if (!list) return <p className="text-soft">Weighing what is worth doing…</p>;
  const lines = list.lines.map((line, n) => ({ ...line, number: n + 1 }));
  return (
    <div className={found.isPlaceholderData ? "opacity-60" : undefined} data-todo>
      <Head list={list} trial={trial} />
      <ol className="space-y-1.5" aria-label="What to do now, in order">
        {lines.map((line, n) => (
          <OneLine
            key={`${line.kind} ${line.of.join(" ")}`}
            {...{ line, trial, onBalance, onOpened }}
            later={lines.slice(n + 1)}
          />
        ))}
      </ol>
      <Aside rows={list.aside} />
    </div>
  );
}

function Head({ list, trial }: { list: Worklist; trial: Trying }) {
  const doc = useEditorPart((s) => s.still);
  const changing = list.lines.filter((l) => l.edits.length > 0);
  return (
    <div className="mb-2 flex items-start gap-3">
      <div className="min-w-0 flex-1">
        <p className="font-semibold" data-todo-words>
          {list.words}
        </p>
        {changing.length > 0 && (
          <p className="text-[0.85rem] text-soft" data-todo-promise>
            All taken: {promise(list, doc)}
          </p>
        )}
      </div>
      {changing.length > 1 && (
        <button
          type="button"
          className="btn-main shrink-0 px-3 py-1 text-[0.88rem]"
          onClick={() => trial.onTakeLines(changing)}
        >
          Take all {changing.length}
        </button>
      )}
    </div>
  );
}

/** What comes out when every line is taken, against how it stands. */
function promise({ before, after, gains }: Worklist, doc: Layout): string {
  const rows = (["hollow", "late", "ask_the_ear"] as const).map(
    (v) => `${NAMES[v]} ${before[v]} → ${after[v]}`,
  );
  return `${rows.join(", ")}. ${gainsText(gains, doc)}`;
}

const NAMES = { hollow: "hollow", late: "late", ask_the_ear: "ask the ear" } as const;
