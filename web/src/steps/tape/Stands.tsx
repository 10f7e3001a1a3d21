/** Where everything stands by the tape, against the plan, and what that changes. */
import type { AtKit } from "../../api/types";
import type { AtKitLog } from "../../parts/atkit/log";
import { MicsStand } from "./MicsStand";
import { PairsStand } from "./PairsStand";
import { Recheck } from "./Recheck";
import { Since } from "./Since";
import { StandsPlan } from "./StandsPlan";
import { TakenRows } from "./TakenRows";
import { ToAndFro } from "./ToAndFro";

interface Props {
  answer: AtKit;
  /** Nothing was changed since: only then may it become the plan. */
  current: boolean;
  kit: AtKitLog;
  /** To the reading between these ends. */
  onRead: (mic: string, to: string | null) => void;
}

export function Stands({ answer, current, kit, onRead }: Props) {
  const { standing, compared, recheck, since } = answer;
  return (
    <section
      aria-label="Where it stands"
      className="gap-x-8 space-y-4 min-[760px]:columns-2 *:break-inside-avoid"
    >
      <p className="font-semibold" data-stands-words>
        {standing.words}
      </p>
      <StandsPlan standing={standing} />
      <ToAndFro answer={answer} current={current} kit={kit} />
      <Recheck rows={recheck} onRead={onRead} />
      <Since rows={since} kit={kit} />
      <MicsStand standing={standing} kit={kit} />
      {standing.mics.length > 1 && <PairsStand compared={compared} />}
      <TakenRows standing={standing} kit={kit} />
      {standing.gone.length > 0 && (
        <div className="text-[0.88rem]">
          <h3 className="font-semibold">Kept, and of nothing that is in the layout</h3>
          <ul>
            {standing.gone.map((words) => (
              <li key={words}>{words}</li>
            ))}
          </ul>
        </div>
      )}
    </section>
  );
}
