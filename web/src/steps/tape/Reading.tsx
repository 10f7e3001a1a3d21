/** One reading: its two ends, what it should be, what it is, and what that says. */
import { type FormEvent, useEffect, useRef, useState } from "react";
import type { AskRow } from "../../api/types";
import { aloneOf } from "../../core/alone";
import { touchedEntry } from "../../core/kitlog";
import {
  howToType,
  lengthText,
  lengthWithUnit,
  parseLength,
  type Ruler,
  unitMark,
} from "../../core/units";
import type { AtKitLog } from "../../parts/atkit/log";
import { useMe } from "../../parts/me";
import { Ends } from "./Ends";
import { Keypad } from "./Keypad";
import { useJudged } from "./useJudged";
import { Verdict } from "./Verdict";

interface Props {
  ask: AskRow;
  /** Whether the list is of all that is written: then it knows what the tape should read now. */
  current: boolean;
  kit: AtKitLog;
  /** The mic is to be moved, and read again. */
  onStay: () => void;
  /** On to the next one; late where a verdict was waited for, and nothing if another was chosen. */
  onDone: () => void;
  /** To the cord, where the two ends are kept equal to another's. */
  onCord?: () => void;
}

/** What is typed, or a meter has sent since this was asked: it never takes the place of typing. */
function useTyped(meter: AtKitLog["meter"]) {
  const ruler: Ruler = useMe();
  const [text, setText] = useState("");
  const seen = useRef(meter?.key);
  const filled = useRef("");
  useEffect(() => {
    if (!meter || meter.key === seen.current) return;
    seen.current = meter.key;
    const sent = lengthText(meter.metres, ruler);
    setText((now) => (now === "" || now === filled.current ? sent : now));
    filled.current = sent;
  }, [meter, ruler]);
  const field = useRef<HTMLInputElement>(null);
  useEffect(() => field.current?.focus({ preventScroll: true }), []);
  return { ruler, text, setText, field, metres: text.trim() ? parseLength(text, ruler) : null };
}

export function Reading({ ask, current, kit, onStay, onDone, onCord }: Props) {
  const typed = useTyped(kit.meter);
  const { ruler, text, setText, metres } = typed;
  const [moved, setMoved] = useState(false);
  const log = moved ? [...kit.log, { key: "moved", ...touchedEntry(ask.mic) }] : kit.log;
  const { judged, unsaid, settled } = useJudged(ask, metres, log);
  const state = judged?.state;
  const can = metres !== null && state !== "impossible" && !aloneOf(ask, metres).cannot;
  const keep = async (e: FormEvent) => {
    e.preventDefault();
    if (!can) return;
    // The difference alone tells whether there is something to move, once it is known from what;
    // so it must with nobody to ask.
    const plain = aloneOf(ask, metres).good ? "good" : "off";
    const verdict = state ?? (current || unsaid ? plain : settled().then((v) => v?.state ?? plain));
    // The mic was moved since the last reading: what was read at it before is no longer sure.
    if (moved) kit.write(touchedEntry(ask.mic));
    kit.write({ what: "reading", mic: ask.mic, to: ask.to, metres });
    setText("");
    onStay();
    const said = await verdict;
    const wrong = said === "off" || said === "unlikely";
    setMoved(wrong);
    if (!wrong) onDone();
  };
  return (
    <form
      onSubmit={(e) => void keep(e)}
      aria-label="Reading"
      className="flex min-h-0 flex-col gap-2.5"
    >
      <Ends ask={ask} />
      <Should ask={ask} />
      <Reads typed={typed} bad={text.trim() !== "" && metres === null} />
      <Verdict ask={ask} metres={metres} judged={judged} unsaid={unsaid} />
      {moved && metres === null && (
        <p className="text-[0.9rem]">
          Kept. Move it, then read again; or{" "}
          <button type="button" className="font-semibold underline" onClick={onDone}>
            leave it so and go on
          </button>
          .
        </p>
      )}
      {onCord && (
        <button
          type="button"
          className="self-start text-[0.88rem] font-semibold underline pointer-coarse:min-h-10"
          onClick={onCord}
        >
          By a cord, no numbers
        </button>
      )}
      <Keypad units={ruler.units} onText={setText} />
      <Foot
        keeps={metres === null ? "Keep" : `Keep ${lengthWithUnit(metres, ruler)}`}
        can={can}
        onSkip={() => {
          kit.write({ what: "skip", mic: ask.mic, to: ask.to, metres: null });
          onDone();
        }}
      />
    </form>
  );
}

function Foot(props: { keeps: string; can: boolean; onSkip: () => void }) {
  return (
    <div className="grid grid-cols-[auto_1fr] gap-2">
      <button type="button" className="btn min-h-14 px-3" onClick={props.onSkip}>
        Could not reach
      </button>
      <button type="submit" className="btn-main min-h-14" disabled={!props.can}>
        {props.keeps}
      </button>
    </div>
  );
}

function Should({ ask }: { ask: AskRow }) {
  const ruler: Ruler = useMe();
  return (
    <p className="flex items-baseline justify-between px-1">
      <span className="text-soft">
        {ask.target_words === "the plan" ? "the plan says" : ask.target_words}
      </span>
      <span className="num text-[1.7rem]" data-target>
        {lengthText(ask.target_m, ruler)}
        <span className="text-[0.9rem] text-soft"> {unitMark(ruler).slice(2)}</span>
      </span>
    </p>
  );
}

function Reads({ typed, bad }: { typed: ReturnType<typeof useTyped>; bad: boolean }) {
  const { ruler, text, setText, field } = typed;
  return (
    <div>
      <label className="flex items-baseline justify-between gap-2 px-1">
        <span className="shrink-0 text-soft">tape reads</span>
        <input
          ref={field}
          inputMode="none"
          autoComplete="off"
          className="num w-full min-w-0 bg-transparent text-right text-[2.9rem] leading-none font-bold"
          aria-label={`Tape reads${unitMark(ruler)}`}
          aria-invalid={bad}
          placeholder="…"
          value={text}
          onChange={(e) => setText(e.target.value)}
        />
        <span className="text-[0.9rem] text-soft">{unitMark(ruler).slice(2)}</span>
      </label>
      {bad && (
        <p role="alert" className="px-1 text-[0.85rem] text-hollow">
          {howToType(ruler)}
        </p>
      )}
    </div>
  );
}
