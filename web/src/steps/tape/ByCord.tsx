/** The same distance without numbers: a cord pinched at one capsule, held at the other. */
import { useState } from "react";
import type { AskRow, KitEntry } from "../../api/types";
import { the } from "../../core/words";
import type { AtKitLog } from "../../parts/atkit/log";
import { Ends } from "./Ends";

interface Props {
  ask: AskRow;
  /** Where this is the first of two: the second, which is held to it. */
  second: AskRow | undefined;
  kit: AtKitLog;
  onStay: () => void;
  onDone: () => void;
  /** Back to numbers. */
  onCord: () => void;
}

const END = "flex min-h-16 w-full flex-col items-center justify-center text-[1.1rem]";

export function ByCord({ ask, second, kit, onStay, onDone, onCord }: Props) {
  return (
    <section aria-label="By a cord" className="flex min-h-0 flex-col gap-2.5">
      <Ends ask={ask} />
      {ask.cord ? (
        <Held ask={ask} cord={ask.cord} {...{ kit, onStay, onDone }} />
      ) : (
        <>
          <p className="px-1">
            Hold a cord from the front of <b>{ask.mic}</b> to {the(ask.to_words)}, taut, and pinch
            it there. Keep it pinched for <b>{second?.mic}</b>.
          </p>
          <button
            type="button"
            className="btn-main min-h-16 text-[1.1rem]"
            onClick={() => {
              kit.write({ what: "skip", mic: ask.mic, to: ask.to, metres: null });
              onDone();
            }}
          >
            Pinched: on to {second?.mic}
          </button>
        </>
      )}
      <button
        type="button"
        className="self-start text-[0.88rem] font-semibold underline pointer-coarse:min-h-10"
        onClick={onCord}
      >
        With the tape, in numbers
      </button>
    </section>
  );
}

type Said = NonNullable<KitEntry["cord"]>;

const WAYS: readonly [Said, string, string][] = [
  ["nearer", "Slack", "is nearer"],
  ["same", "Just taut", "is as far"],
  ["further", "Does not reach", "is further"],
];

interface HeldProps {
  ask: AskRow;
  cord: NonNullable<AskRow["cord"]>;
  kit: AtKitLog;
  onStay: () => void;
  onDone: () => void;
}

function Held({ ask, cord, kit, onStay, onDone }: HeldProps) {
  const [now, setNow] = useState<Said | null>(null);
  const said = now ?? cord.said;
  const say = (what: Said) => {
    setNow(what);
    kit.write({
      what: "cord",
      mic: ask.mic,
      to: ask.to,
      like: cord.like,
      cord: what,
      metres: null,
    });
    if (what === "same") onDone();
    else onStay();
  };
  const advice = said === "nearer" ? cord.nearer : said === "further" ? cord.further : "";
  return (
    <>
      <p className="px-1">
        The cord is as long as from <b>{cord.like}</b>. Held from {the(ask.to_words)} to the front
        of <b>{ask.mic}</b> it is:
      </p>
      <div role="group" aria-label="The cord is" className="space-y-2">
        {WAYS.map(([what, words, so]) => (
          <button
            key={what}
            type="button"
            aria-pressed={said === what}
            className={`${what === "same" ? "btn-main" : "btn"} ${END} ${said === what ? "outline-2 outline-offset-2 outline-ink" : ""}`}
            onClick={() => say(what)}
          >
            {words}
            <span className="text-[0.85rem] font-normal">
              {ask.mic} {so}
            </span>
          </button>
        ))}
      </div>
      <p role="status" className={advice ? "rounded-lg bg-late/15 p-3" : ""} data-cord={said ?? ""}>
        {advice}
      </p>
    </>
  );
}
