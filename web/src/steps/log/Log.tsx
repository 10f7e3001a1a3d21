/** The log: what was tried, what it did, and the way back to it, in this session or the next. */
import { useDeferredValue, useState } from "react";
import { holds } from "../../core/triedLines";
import { useEditorPart } from "../../parts/editing";
import { Segmented } from "../../parts/fields/Segmented";
import { useMe } from "../../parts/me";
import { Lines } from "./Lines";
import { useElsewhere, useLines } from "./useTried";
import { WriteLine } from "./WriteLine";

const WHERE = [
  ["here", "This session"],
  ["elsewhere", "Earlier sessions"],
] as const;

type Where = (typeof WHERE)[number][0];

export function Log() {
  const lines = useLines();
  return (
    <div className="relative h-full overflow-y-auto bg-panel">
      <h1 className="sr-only">Log</h1>
      <div className="mx-auto grid max-w-[1200px] gap-5 p-4 min-[900px]:grid-cols-[23rem_minmax(0,1fr)]">
        <div>
          <WriteLine lines={lines.data ?? []} />
        </div>
        <Look />
      </div>
    </div>
  );
}

function Look() {
  const [where, setWhere] = useState<Where>("here");
  const [words, setWords] = useState("");
  return (
    <section aria-label="What was tried" className="min-w-0 space-y-3">
      <div className="flex flex-wrap items-center gap-3">
        <Segmented label="Lines of" value={where} options={WHERE} onTake={setWhere} />
        <input
          type="search"
          aria-label="Find a word, a mic or a song"
          placeholder="Find a word, a mic or a song"
          className="field min-w-40 flex-1"
          value={words}
          onChange={(e) => setWords(e.target.value)}
        />
        {where === "here" && <AsTable />}
      </div>
      {where === "here" ? <Here words={words} /> : <Elsewhere words={words} />}
    </section>
  );
}

function AsTable() {
  const session = useEditorPart((s) => s.out.session_id);
  const { units } = useMe();
  return (
    <a
      className="text-[0.85rem] underline"
      href={`/api/sessions/${session}/tried.csv?units=${units}`}
    >
      As a table (CSV)
    </a>
  );
}

const EMPTY =
  "Nothing is written down yet. Move a mic, hit, listen, and write what it did: the line keeps the layout, so that the next song can have it back.";

function Here({ words }: { words: string }) {
  const found = useLines();
  if (found.error && !found.data) return <p role="alert">{found.error.message}</p>;
  if (!found.data) return null;
  const shown = found.data.filter((l) => holds(l, words));
  if (!shown.length)
    return <p className="max-w-prose text-soft">{found.data.length ? "No line has it." : EMPTY}</p>;
  return <Lines lines={shown} every={found.data} />;
}

function Elsewhere({ words }: { words: string }) {
  const found = useElsewhere(useDeferredValue(words.trim()));
  if (found.error && !found.data) return <p role="alert">{found.error.message}</p>;
  if (!found.data) return null;
  const lines = found.data.pages.flat();
  if (!lines.length)
    return (
      <p className="max-w-prose text-soft">
        {words.trim()
          ? "No line of an earlier session has it."
          : "What was written down in other sessions of this studio is found here."}
      </p>
    );
  return (
    <>
      <Lines lines={lines} every={lines} elsewhere />
      {found.hasNextPage && (
        <button type="button" className="btn" onClick={() => void found.fetchNextPage()}>
          Show older lines
        </button>
      )}
    </>
  );
}
