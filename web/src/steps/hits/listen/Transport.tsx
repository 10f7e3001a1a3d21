/** Play and stop, how loud, and which hit is heard at the moment. */
import { useEffect, useState } from "react";
import type { TakeHeard } from "../../../api/types";
import { Slide } from "../../../parts/fields/Slide";
import type { Listened } from "./useListen";

type Loop = TakeHeard["loops"][number];

interface Props {
  on: Listened;
  loop: Loop | undefined;
  rate: number;
}

export function Transport({ on, loop, rate }: Props) {
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
      <Now {...{ on, loop, rate }} />
      {sound.bad && <p role="alert">{sound.bad}</p>}
    </div>
  );
}

const LOOK_MS = 120;

/** Where it is, by the clock of the sound. */
function Now({ on, loop, rate }: Props) {
  const { sound } = on;
  const [now, setNow] = useState(sound.now);
  useEffect(() => {
    if (!sound.on) return;
    const timer = setInterval(() => {
      setNow(sound.now());
    }, LOOK_MS);
    return () => clearInterval(timer);
  }, [sound.on, sound.now]);
  if (!sound.on) return <span className="text-[0.85rem] text-soft">Silent</span>;
  const { at, late, clock } = now;
  const told = { "data-late": late, "data-clock": clock, "data-sample": at?.sample };
  const hit = at && loop ? `hit ${at.number + 1} of ${loop.spans.length}` : "";
  return (
    <span className="num text-[0.85rem] text-soft" {...told}>
      {at ? hit || `${(at.sample / rate).toFixed(0)} s` : "Fetching the sound…"}
      {late > 0 && `; the line was too slow ${late === 1 ? "once" : `${late} times`}`}
    </span>
  );
}
