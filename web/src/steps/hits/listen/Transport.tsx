/** Play and stop, how loud, and which hit is heard at the moment. */
import { useEffect, useState } from "react";
import { Slide } from "../../../parts/fields/Slide";
import type { Listened } from "./useListen";

export function Transport({ on }: { on: Listened }) {
  const { sound } = on;
  return (
    <div className="flex flex-wrap items-center gap-3">
      <button
        type="button"
        className="btn-main w-20"
        onClick={() => (sound.on ? sound.stop() : on.play())}
      >
        {sound.on ? "Stop" : "Play"}
      </button>
      <div className="flex items-center gap-2 text-[0.88rem]">
        <span aria-hidden="true">Level</span>
        <Slide
          className="w-32"
          label="Level"
          low={0}
          high={1}
          step={0.05}
          value={sound.volume}
          onShow={sound.loud}
          onTake={sound.loud}
        />
      </div>
      <Now on={on} />
      {sound.bad && <p role="alert">{sound.bad}</p>}
    </div>
  );
}

const LOOK_MS = 120;

/** Where it is, by the clock of the sound. */
function Now({ on }: { on: Listened }) {
  const { sound, sides, played } = on;
  const { deck, decks } = sides;
  const n = decks.indexOf(deck);
  const [now, setNow] = useState(() => sound.now(n));
  useEffect(() => {
    if (!sound.on) return;
    const timer = setInterval(() => {
      setNow(sound.now(n));
    }, LOOK_MS);
    return () => clearInterval(timer);
  }, [sound.on, sound.now, n]);
  if (!sound.on) return <span className="text-[0.85rem] text-soft">Silent</span>;
  const { at, late, clock } = now;
  const told = { "data-late": late, "data-clock": clock, "data-sample": at?.sample };
  const { loop, parts } = played.program;
  const hit = at && loop ? `hit ${at.number + 1} of ${parts.length}` : "";
  return (
    <span className="num text-[0.85rem] text-soft" {...told}>
      {at ? hit || `${(at.sample / deck.heard.rate_hz).toFixed(0)} s` : "Fetching the sound…"}
      {late > 0 && `; the line was too slow ${late === 1 ? "once" : `${late} times`}`}
    </span>
  );
}
