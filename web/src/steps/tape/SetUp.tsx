/** The set-up list: one stand after the other, ticked off as it stands. */
import type { AtKit, SetupJob } from "../../api/types";
import { micOf } from "../../core/edits";
import { tickedOf } from "../../core/kitlog";
import { boxOf, sketchOf } from "../../core/sketch";
import { lengthWithUnit, type Ruler } from "../../core/units";
import { spoken } from "../../core/words";
import type { AtKitLog } from "../../parts/atkit/log";
import type { Order } from "../../parts/atkit/stands";
import { Sketch } from "../../parts/chart/Sketch";
import { useEditorPart } from "../../parts/editing";
import { Pick } from "../../parts/fields/Pick";
import { Tick } from "../../parts/fields/Tick";
import { useMe } from "../../parts/me";

const ORDERS: Order[] = ["overheads first", "kick first", "by stand", "round the kit"];

interface Props {
  setup: AtKit["setup"];
  kit: AtKitLog;
  onOrder: (order: Order) => void;
}

export function SetUp({ setup, kit, onOrder }: Props) {
  const up = tickedOf(kit.log);
  const done = (job: SetupJob) => job.mics.every((m) => up.has(m.row.id));
  const left = setup.jobs.filter((j) => !done(j));
  const minutes = Math.round(left.reduce((sum, j) => sum + j.minutes, 0));
  return (
    <section aria-label="Set-up list" className="space-y-3">
      <header className="flex flex-wrap items-center justify-between gap-2">
        <Pick
          hideLabel
          label="Order"
          value={setup.order}
          options={ORDERS}
          onTake={(o) => onOrder(o as Order)}
        />
        <p className="text-[0.9rem]" data-left={left.length}>
          <b>{setup.jobs.length - left.length}</b> of {setup.jobs.length} up, about{" "}
          <b className="num">{minutes}</b> min to go
          {setup.there != null && `, ${setup.there} planned in all`}
        </p>
      </header>
      {setup.cautions.map((words) => (
        <Caution key={words} words={words} />
      ))}
      <ol className="space-y-2">
        {setup.jobs.map((job) => (
          <OneJob
            key={job.mics[0]?.row.id}
            job={job}
            done={done(job)}
            onTick={(on) => {
              for (const m of job.mics)
                if (up.has(m.row.id) !== on)
                  kit.write({
                    what: on ? "tick" : "untick",
                    mic: m.row.id,
                    to: null,
                    metres: null,
                  });
            }}
          />
        ))}
      </ol>
    </section>
  );
}

function Caution({ words }: { words: string }) {
  return (
    <p className="flex gap-1.5 text-[0.85rem]">
      <span aria-hidden="true" className="font-bold text-latetext">
        !
      </span>
      {words}
    </p>
  );
}

interface JobProps {
  job: SetupJob;
  done: boolean;
  onTick: (on: boolean) => void;
}

function OneJob({ job, done, onTick }: JobProps) {
  const names = job.mics.map((m) => m.row.id).join(" and ");
  return (
    <li
      data-job={names}
      className={`rounded-lg border border-hair p-2.5 ${done ? "bg-tint" : "bg-card"}`}
    >
      <Tick className="items-center text-[1rem]" checked={done} onTake={onTick}>
        <b>{names}</b> {job.stand && <span className="text-soft">on {job.stand}</span>}
      </Tick>
      {!done && (
        <div className="mt-1 space-y-2 text-[0.9rem]">
          {job.mics.map((m) => (
            <OneMic key={m.row.id} mic={m} alone={job.mics.length === 1} />
          ))}
          {job.cautions.map((words) => (
            <Caution key={words} words={words} />
          ))}
        </div>
      )}
    </li>
  );
}

/** Where the mic goes, from above, with the tapes that place it. */
function Spot({ id, own }: { id: string; own: boolean }) {
  const doc = useEditorPart((s) => s.still);
  const mic = micOf(doc, id);
  const drawn = sketchOf(doc);
  if (!mic) return null;
  const alone = { ...drawn, mics: drawn.mics.filter((m) => m.id === id) };
  const box = boxOf(alone);
  const ends = doc.kit.drums.filter((d) =>
    own ? d.id === mic.job : d.kind === "snare" || d.kind === "kick",
  );
  return (
    <div className="relative w-28 shrink-0">
      <Sketch summary={alone} name={`where ${id} goes`} box={box} high="h-24" />
      <svg viewBox={box.join(" ")} className="absolute inset-0 h-24 w-full" aria-hidden="true">
        {ends.map((d) => (
          <line
            key={d.id}
            x1={mic.position_m[0]}
            y1={-mic.position_m[1]}
            x2={d.batter_m[0]}
            y2={-d.batter_m[1]}
            stroke={d.kind === "kick" ? "var(--kick)" : "var(--snare)"}
            strokeWidth={0.03 * Math.max(1, box[3] / 1.9)}
          />
        ))}
      </svg>
    </div>
  );
}

function OneMic({ mic, alone }: { mic: SetupJob["mics"][number]; alone: boolean }) {
  const ruler: Ruler = useMe();
  const { row } = mic;
  const length = (m: number) => lengthWithUnit(m, ruler);
  const what = [mic.model, row.pattern, mic.pad_db ? `${mic.pad_db} dB pad in` : ""];
  const far =
    row.own_m == null
      ? `snare ${length(row.snare_m)}, kick ${length(row.kick_m)}`
      : `${length(row.own_m)} from ${spoken(row.job)}`;
  return (
    <div className="flex justify-between gap-2">
      <div className="min-w-0">
        <p>
          {!alone && <b>{row.id}: </b>}
          {row.name}: {what.filter(Boolean).join(", ")}
        </p>
        <p className="num text-[0.88rem]">
          {far}; {length(row.height_m)} high
        </p>
        <p className="text-soft">
          aimed {row.aim}; {mic.plug}
          {mic.cable && `; cable ${mic.cable}`}
        </p>
        {row.flips.length > 0 && <p className="font-semibold">{row.flips.join("; ")}</p>}
      </div>
      <Spot id={row.id} own={row.own_m != null} />
    </div>
  );
}
