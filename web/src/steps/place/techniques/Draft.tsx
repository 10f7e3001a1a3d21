/** A technique before it is taken: on the chart with its verdicts, its numbers to be changed. */
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { api, exactly } from "../../../api/client";
import type { Board, Layout, Technique, Took } from "../../../api/types";
import { Latest } from "../../../core/latest";
import { targetNames } from "../../../core/techniques";
import { useEditor, useEditorPart } from "../../../parts/editing";
import { Choice } from "../../../parts/fields";
import { Mark } from "../../../parts/Mark";
import { useMe } from "../../../parts/me";
import { VerdictCounts } from "../../../parts/VerdictCounts";
import { About, Promises } from "./About";
import { NumberFields } from "./NumberFields";

interface Ask {
  layout: Layout;
  technique: string;
  target: string | null;
  numbers: Record<string, number>;
}

export function Draft(props: {
  technique: Technique;
  onTaken: (id: string) => void;
  onBack: () => void;
}) {
  const { technique, onTaken, onBack } = props;
  const editor = useEditor();
  const ruler = useMe();
  const still = useEditorPart((s) => s.still);
  const board = useEditorPart((s) => s.board);
  const [target, setTarget] = useState<string | null>(null);
  const [numbers, setNumbers] = useState<Record<string, number>>({});
  const [took, setTook] = useState<Took | null>(null);
  const [bad, setBad] = useState("");
  const taken = useRef(false);
  // Pressed while a number was still on its way: taken as soon as that is answered.
  const [eager, setEager] = useState(false);
  const asked = useRef<Ask | null>(null);
  const [answered, setAnswered] = useState<Ask | null>(null);
  const hands = useMemo(
    () =>
      new Latest<Ask, Took>(
        (body) =>
          exactly<Took>(
            api.POST("/api/layouts/{pk}/take", {
              params: { path: { pk: editor.snapshot().out.id } },
              body,
            }),
          ),
        (answer, question) => {
          setBad("");
          setAnswered(question);
          setTook(answer);
          editor.preview(answer.layout);
        },
        (error) => {
          setEager(false);
          setBad(error.message);
          setTook(null);
          editor.preview(editor.snapshot().still);
        },
      ),
    [editor],
  );
  useEffect(() => {
    asked.current = { layout: still, technique: technique.id, target, numbers };
    hands.want(asked.current);
  }, [hands, still, technique.id, target, numbers]);
  useEffect(
    () => () => {
      hands.callOff();
      if (!taken.current) editor.preview(editor.snapshot().still);
    },
    [editor, hands],
  );
  const take = useCallback(() => {
    if (!took) return;
    if (answered !== asked.current) return setEager(true);
    taken.current = true;
    hands.callOff();
    editor.commit(took.layout, took.what);
    onTaken(took.id);
  }, [answered, editor, hands, onTaken, took]);
  useEffect(() => {
    if (eager) take();
  }, [eager, take]);
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const typing = e.target instanceof HTMLElement && e.target.closest("input, select");
      if (e.key === "Escape" && !typing) onBack();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [onBack]);

  const names = targetNames(still);
  const fresh = took?.standing?.mics ?? [];
  const blocked = fresh.filter((m) => board?.blocked[m]);
  return (
    <div className="space-y-3" data-draft={technique.id}>
      <header>
        <p className="text-[0.8rem] text-soft">{technique.group}, not taken yet</p>
        <h2 className="text-[1.05rem]">{technique.name}</h2>
      </header>
      <div className="flex gap-2">
        <button type="button" className="btn-main flex-1" disabled={!took} onClick={take}>
          Take it
        </button>
        <button type="button" className="btn" onClick={onBack}>
          Back to the list
        </button>
      </div>
      {bad && (
        <p role="alert" className="text-[0.88rem] text-hollow">
          {bad}
        </p>
      )}
      {[...(took?.notes ?? []), ...(took?.short ?? [])].map((n) => (
        <p key={n} className="text-[0.85rem] text-latetext">
          {n}
        </p>
      ))}
      {blocked.map((m) => (
        <p key={m} role="alert" className="text-[0.85rem] text-hollow">
          {m}: {board?.blocked[m]}
        </p>
      ))}
      {technique.takes_target && (
        <Choice
          label="For"
          value={took?.standing?.target ?? target ?? technique.targets[0] ?? ""}
          options={technique.targets}
          names={names}
          onTake={(v) => {
            setTarget(v);
            setNumbers({});
          }}
        />
      )}
      <NumberFields
        rows={technique.numbers}
        values={{ ...took?.standing?.numbers, ...numbers }}
        ruler={ruler}
        onTake={(id, value) => setNumbers((old) => ({ ...old, [id]: value }))}
      />
      <p className="text-[0.83rem] text-soft">
        {technique.mics === 1 ? "One mic" : `${technique.mics} mics`}: {fresh.join(", ")}; about{" "}
        {Math.round(technique.minutes)} min to set up.
      </p>
      <Promises rows={took?.standing?.equal ?? []} ruler={ruler} />
      {board && took && (
        <section aria-label="Pairs with it">
          <h3 className="mb-1 text-[0.9rem]">All pairs, with it</h3>
          <VerdictCounts counts={board.counts} />
          <Gravest board={board} mics={fresh} />
        </section>
      )}
      <About technique={technique} />
    </div>
  );
}

const MOST = 4;

/** The pairs of the new mics that want most attention, and on which drum. */
function Gravest({ board, mics }: { board: Board; mics: string[] }) {
  const rows = board.pair_a
    .map((a, i) => ({
      a,
      b: board.pair_b[i] ?? "",
      worst: board.worst[i],
      on: board.worst_source[i],
    }))
    .filter((p) => mics.includes(p.a) || mics.includes(p.b))
    .filter((p) => p.worst === "hollow" || p.worst === "late");
  rows.sort((x, y) => Number(y.worst === "hollow") - Number(x.worst === "hollow"));
  if (!rows.length)
    return <p className="mt-1 text-[0.83rem] text-ring">None of its pairs is hollow or late.</p>;
  return (
    <ul className="mt-1 space-y-0.5 text-[0.83rem]" aria-label="Its gravest pairs">
      {rows.slice(0, MOST).map((p) => (
        <li key={`${p.a} ${p.b}`} className="flex items-center gap-1.5">
          <Mark verdict={p.worst ?? "no matter"} size={11} />
          <span className="num">
            {p.a}, {p.b}
          </span>{" "}
          {p.worst} on {board.sources.find((s) => s.id === p.on)?.name.toLowerCase() ?? p.on}
        </li>
      ))}
      {rows.length > MOST && <li className="text-soft">and {rows.length - MOST} more</li>}
    </ul>
  );
}
