/** The reading that is asked for next. */
import { type FormEvent, type RefObject, useEffect, useRef, useState } from "react";
import type { KitBoard } from "../../../api/types";
import { howToType, parseLength, type Ruler, unitMark } from "../../../core/units";
import { useMe } from "../../../parts/me";
import { useReadTape } from "./useTape";

const STAGE = {
  place: "To place it",
  check: "To check what is known",
  again: "Once more",
} as const;

/** A reading by its two ends; no second end is the floor. */
export type Ends = [string, string | null];

type Tape = KitBoard["tape"];

interface Props {
  tape: Tape;
  onSkip: (ends: Ends) => void;
  /** Whether the last reading was typed here: the field then waits for the next. */
  typed: RefObject<boolean>;
}

export function NextReading(props: Props) {
  const ask = props.tape.next;
  return ask && <Asked {...props} ask={ask} />;
}

/** What is typed for a reading, and taking it. */
function useReading(ask: NonNullable<Tape["next"]>, typed: RefObject<boolean>) {
  const readTape = useReadTape();
  const ruler: Ruler = useMe();
  const [text, setText] = useState("");
  const [bad, setBad] = useState(false);
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (typed.current) field.current?.focus();
    typed.current = false;
  }, [typed]);
  const submit = (e: FormEvent) => {
    e.preventDefault();
    const metres = parseLength(text, ruler);
    setBad(metres === null);
    typed.current = metres !== null;
    if (metres === null) return field.current?.focus();
    // The same length may be asked for again: the field is emptied, not only made anew.
    void readTape(ask.a, ask.b, metres).then((ok) => ok && setText(""));
  };
  return { text, setText, bad, field, ruler, submit };
}

function Asked({ tape, ask, onSkip, typed }: Props & { ask: NonNullable<Tape["next"]> }) {
  const { text, setText, bad, field, ruler, submit } = useReading(ask, typed);
  const where = (id: string | null) =>
    id === null ? "the floor" : tape.parts.find((p) => p.id === id)?.held_at;
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
        <button type="button" className="btn" onClick={() => onSkip([ask.a, ask.b])}>
          Skip
        </button>
      </div>
      {bad && (
        <p role="alert" className="text-[0.83rem] text-hollow">
          {howToType(ruler)}
        </p>
      )}
    </form>
  );
}
