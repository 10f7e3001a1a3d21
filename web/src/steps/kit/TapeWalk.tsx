/** The walk round the kit with a tape: one reading at a time, and what the readings say. */
import { type FormEvent, type RefObject, useEffect, useRef, useState } from "react";
import type { KitBoard, Layout } from "../../api/types";
import {
  howToType,
  lengthText,
  lengthWithUnit,
  parseLength,
  type Ruler,
  unitMark,
} from "../../core/units";
import { useEditorPart } from "../../parts/editing";
import { useMe } from "../../parts/me";
import { partOf, partsOf, useKitHands } from "./hands";

interface Props {
  board: KitBoard | undefined;
  onSkip: (ends: [string, string | null]) => void;
  skipped: number;
  onUnskip: () => void;
}

const STAGE = {
  place: "To place it",
  check: "To check what is known",
  again: "Once more",
} as const;

const STATE = {
  fits: ["fits", "text-ring"],
  misfit: ["does not fit, left out", "text-hollow"],
  doubtful: ["in doubt", "text-latetext"],
  unsure: ["no longer sure", "text-latetext"],
} as const;

export function TapeWalk({ board, onSkip, skipped, onUnskip }: Props) {
  const doc = useEditorPart((s) => s.still);
  const tape = board?.tape;
  // The next reading takes the focus only from the one just typed, never from the chart.
  const typed = useRef(false);
  return (
    <div className="grid h-full min-h-0 grid-cols-[minmax(0,21rem)_minmax(0,1fr)] gap-5 max-[1050px]:grid-cols-[minmax(0,14rem)_minmax(0,1fr)] max-[1050px]:gap-3 px-4 pb-3">
      <div className="min-w-0 overflow-y-auto">
        {tape?.next ? (
          <NextReading
            key={`${tape.next.a} ${tape.next.b} ${tape.readings.length}`}
            tape={tape}
            doc={doc}
            onSkip={onSkip}
            typed={typed}
          />
        ) : (
          <p className="py-2">
            {tape
              ? "Every part is placed, and there is nothing left to check it by."
              : "Asking what to measure…"}
          </p>
        )}
        <p className="mt-2 text-[0.85rem]" data-tape-words>
          {tape?.words}
        </p>
        {tape && (
          <p className="text-[0.82rem] text-soft">
            {tape.placed} of {tape.parts.length} parts placed, {tape.readings.length} readings;{" "}
            {tape.guarded} of them checked so well that a slip would show.
          </p>
        )}
        {skipped > 0 && (
          <button type="button" className="text-[0.82rem] text-snare underline" onClick={onUnskip}>
            Ask for the {skipped} skipped again
          </button>
        )}
      </div>
      <div className="grid min-h-0 grid-rows-[minmax(0,1fr)_auto] gap-2">
        <Readings board={board} doc={doc} />
        <OtherReading doc={doc} />
      </div>
    </div>
  );
}

function useTake() {
  const hands = useKitHands();
  return (a: string, b: string | null, metres: number) =>
    hands.commit(() => ({ do: "reading", a, b, metres }));
}

function NextReading(props: {
  tape: KitBoard["tape"];
  doc: Layout;
  onSkip: (ends: [string, string | null]) => void;
  typed: RefObject<boolean>;
}) {
  const { tape, doc, typed } = props;
  const take = useTake();
  const ruler: Ruler = useMe();
  const [text, setText] = useState("");
  const [bad, setBad] = useState(false);
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (typed.current) field.current?.focus();
    typed.current = false;
  }, [typed]);
  const ask = tape.next;
  if (!ask) return null;
  const where = (id: string | null) =>
    id === null ? "the floor" : tape.parts.find((p) => p.id === id)?.held_at;
  const submit = (e: FormEvent) => {
    e.preventDefault();
    const metres = parseLength(text, ruler);
    setBad(metres === null);
    typed.current = metres !== null;
    // The same length may be asked for again: the field is emptied, not only made anew.
    if (metres !== null) void take(ask.a, ask.b, metres).then((ok) => ok && setText(""));
    else field.current?.focus();
  };
  return (
    <form onSubmit={submit} aria-label="Next reading">
      <p className="text-[0.8rem] text-soft">{STAGE[ask.stage]}</p>
      <p
        className="font-head text-[1.05rem] leading-tight font-bold"
        data-ask={`${ask.a} ${ask.b ?? "ground"}`}
      >
        {ask.words}
      </p>
      <p className="text-[0.85rem] text-soft">
        Hold the tape at {where(ask.b)} and {where(ask.a)}.
      </p>
      <div className="mt-1.5 flex items-end gap-2">
        <label className="min-w-0 flex-1">
          <span className="text-[0.8rem] text-soft">Reads{unitMark(ruler)}</span>
          <input
            ref={field}
            className="field num w-full py-1 text-[1.35rem] font-bold"
            value={text}
            inputMode={ruler.units === "cm" ? "decimal" : "text"}
            aria-invalid={bad}
            onChange={(e) => setText(e.target.value)}
          />
        </label>
        <button type="submit" className="btn-main" disabled={text.trim() === ""}>
          Take it
        </button>
        <button type="button" className="btn" onClick={() => props.onSkip([ask.a, ask.b])}>
          Skip
        </button>
      </div>
      {bad && (
        <p role="alert" className="text-[0.83rem] text-hollow">
          {howToType(ruler)}
        </p>
      )}
      <span className="sr-only">{doc.kit.name}</span>
    </form>
  );
}

function Readings({ board, doc }: { board: KitBoard | undefined; doc: Layout }) {
  const hands = useKitHands();
  const ruler: Ruler = useMe();
  const name = (id: string | null) => (id === null ? "floor" : (partOf(doc, id)?.name ?? id));
  const rows = board?.tape.readings ?? [];
  if (!rows.length)
    return (
      <p className="text-soft">
        Each reading moves the drawing at once: five are enough to begin with, because what is not
        measured stays as it is drawn.
      </p>
    );
  return (
    <div className="overflow-y-auto">
      <table className="w-full text-[0.86rem]">
        <caption className="sr-only">Tape readings against the plan</caption>
        <thead className="sticky top-0 bg-panel text-left text-soft">
          <tr>
            <th className="font-normal">Between</th>
            <th className="font-normal">Tape{unitMark(ruler)}</th>
            <th className="font-normal">Plan{unitMark(ruler)}</th>
            <th className="font-normal">Off</th>
            <th className="font-normal" />
            <th className="font-normal">
              <span className="sr-only">Forget</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {[...rows].reverse().map((r) => {
            const [words, colour] = STATE[r.state];
            return (
              <tr key={`${r.a} ${r.b}`} data-reading={`${r.a} ${r.b ?? "ground"}`}>
                <th scope="row" className="text-left font-normal">
                  {name(r.a)} – {name(r.b)}
                </th>
                <td className="num font-semibold">{lengthText(r.metres, ruler)}</td>
                <td className="num">{lengthText(r.says_m, ruler)}</td>
                <td className="num">
                  {r.off_m > 0.0005 ? "+" : ""}
                  {lengthWithUnit(r.off_m, ruler)}
                </td>
                <td className={`font-semibold ${colour}`}>{words}</td>
                <td>
                  <button
                    type="button"
                    className="text-soft underline"
                    aria-label={`Forget ${name(r.a)} to ${name(r.b)}`}
                    onClick={() => void hands.commit(() => ({ do: "forget", a: r.a, b: r.b }))}
                  >
                    forget
                  </button>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}

/** Any other reading somebody has: two ends and a length. */
function OtherReading({ doc }: { doc: Layout }) {
  const take = useTake();
  const ruler: Ruler = useMe();
  const parts = partsOf(doc);
  const [bad, setBad] = useState("");
  const submit = async (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const form = e.currentTarget;
    const data = new FormData(form);
    const [a, b] = [String(data.get("a")), String(data.get("b"))];
    const metres = parseLength(String(data.get("length")), ruler);
    if (metres === null) setBad(howToType(ruler));
    else if (a === b) setBad("Choose two different ends");
    else {
      setBad("");
      if (await take(a, b || null, metres))
        (form.elements.namedItem("length") as HTMLInputElement).value = "";
    }
  };
  return (
    <form
      onSubmit={(e) => void submit(e)}
      aria-label="Another reading"
      className="flex flex-wrap items-center gap-2 border-t border-hair pt-2 text-[0.86rem]"
    >
      <span className="text-soft">Or from</span>
      <select name="a" className="field" aria-label="From" defaultValue={parts[0]?.id}>
        {parts.map((p) => (
          <option key={p.id} value={p.id}>
            {p.name}
          </option>
        ))}
      </select>
      <span className="text-soft">to</span>
      <select name="b" className="field" aria-label="To" defaultValue="">
        <option value="">the floor</option>
        {parts.map((p) => (
          <option key={p.id} value={p.id}>
            {p.name}
          </option>
        ))}
      </select>
      <input
        name="length"
        className="field num w-24"
        aria-label={`Length${unitMark(ruler)}`}
        required
      />
      <button type="submit" className="btn px-2 py-1">
        Take
      </button>
      {bad && (
        <span role="alert" className="text-hollow">
          {bad}
        </span>
      )}
    </form>
  );
}
