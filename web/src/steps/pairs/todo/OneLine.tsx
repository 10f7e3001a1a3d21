/** One line: what to do, what it gives and costs, how sure it is, and what is done with it. */
import { useState } from "react";
import { lengthWithUnit } from "../../../core/units";
import { useEditorPart } from "../../../parts/editing";
import { useTake } from "../../../parts/hands";
import { useMe } from "../../../parts/me";
import type { Trying } from "../useTrial";
import { Dismiss } from "./Dismiss";
import { type Leads, useWhere } from "./useWhere";
import { costText, gainsText, type Numbered, sidesText } from "./words";

interface Props extends Leads {
  line: Numbered;
  /** Those after it. */
  later: Numbered[];
  trial: Trying;
}

export function OneLine({ line, later, trial, ...leads }: Props) {
  return (
    <li
      data-line={line.kind}
      data-of={line.of.join(" ")}
      className="flex items-start gap-3 rounded-lg border border-hair bg-panel px-2.5 py-1.5 max-[560px]:flex-wrap max-[560px]:gap-y-1.5"
    >
      <span className="num mt-0.5 w-5 shrink-0 text-right font-bold text-soft" aria-hidden="true">
        {line.number}
      </span>
      <div className="min-w-0 flex-1">
        <p className="font-semibold">{line.words}</p>
        <Gives line={line} later={later} />
      </div>
      <Does {...{ line, trial }} {...leads} />
    </li>
  );
}

const SURE = { sure: "Sure", likely: "Likely", open: "Open" } as const;

function Gives({ line, later }: Pick<Props, "line" | "later">) {
  const doc = useEditorPart((s) => s.still);
  const ruler = useMe();
  const moves = line.moves.map(
    (m) =>
      `${m.mic} ${m.steps.map((s) => `${s.way} ${lengthWithUnit(s.metres, ruler)}`).join(", ")}`,
  );
  const gains = gainsText(line.drums, doc);
  const sides = line.kind === "choose" ? "" : sidesText(line, later);
  return (
    <>
      {moves.length > 0 && <p className="num text-[0.82rem]">{moves.join("; ")}</p>}
      {(gains || sides) && (
        <p className="text-[0.85rem]" data-gives>
          {gains} {sides}
        </p>
      )}
      <p className="text-[0.82rem] text-soft">
        {line.edits.length > 0 && line.kind !== "choose" && (
          <span className="font-semibold text-ink" data-sure={line.sure}>
            {SURE[line.sure]}.{" "}
          </span>
        )}
        {line.sure_words} {costText(line)}.
      </p>
      <p className="text-[0.82rem] text-soft italic">{line.because}</p>
    </>
  );
}

const SMALL = "px-2.5 py-0.5 text-[0.82rem]";

function Does({ line, trial, ...leads }: Omit<Props, "later">) {
  const changes = line.edits.length > 0;
  const go = useWhere(line, leads);
  return (
    <div className="flex shrink-0 flex-col items-end gap-1.5 max-[560px]:basis-full max-[560px]:flex-row-reverse max-[560px]:items-center max-[560px]:justify-between max-[560px]:pl-8">
      <span className="flex gap-1.5">
        {changes && line.kind !== "choose" && (
          <Press words="Try" line={line.number} onPress={() => trial.onTryLine(line)} />
        )}
        {go && <Press words={go.words} line={line.number} onPress={go.go} main={!changes} />}
        {changes && (
          <Press words="Take" line={line.number} onPress={() => trial.onTakeLines([line])} main />
        )}
      </span>
      <NotNow line={line} />
    </div>
  );
}

function Press(props: { words: string; line: number; onPress: () => void; main?: boolean }) {
  return (
    <button
      type="button"
      aria-label={`${props.words}, line ${props.line}`}
      className={`${props.main ? "btn-main" : "btn"} ${SMALL}`}
      onClick={props.onPress}
    >
      {props.words}
    </button>
  );
}

/** Put off without a word, or dismissed with one. */
function NotNow({ line }: { line: Numbered }) {
  const take = useTake();
  const many = useEditorPart((s) => s.still.set_aside?.length ?? 0);
  const [asked, setAsked] = useState(false);
  const aside = (reason: string) =>
    void take({ do: "put-aside", kind: line.kind, of: line.of, words: line.words, reason });
  return (
    <>
      <span className="flex gap-2 text-[0.78rem] text-soft">
        <Quiet words="Put off" line={line.number} onPress={() => aside("")} />
        <Quiet words="Dismiss" line={line.number} onPress={() => setAsked(true)} />
      </span>
      <Dismiss
        key={many}
        open={asked}
        words={line.words}
        onClose={() => setAsked(false)}
        onGiven={(reason) => {
          setAsked(false);
          aside(reason);
        }}
      />
    </>
  );
}

function Quiet({ words, line, onPress }: { words: string; line: number; onPress: () => void }) {
  return (
    <button
      type="button"
      aria-label={`${words}, line ${line}`}
      className="underline hover:text-ink pointer-coarse:min-h-10"
      onClick={onPress}
    >
      {words}
    </button>
  );
}
