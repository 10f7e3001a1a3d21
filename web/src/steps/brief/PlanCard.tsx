/** One starting layout: its drawing, what it takes, why it is so, and what it gives up. */
import type { Plan } from "../../api/types";
import { boxOf, sketchOf } from "../../core/sketch";
import { counted } from "../../core/words";
import { Sketch } from "../../parts/chart/Sketch";
import { VerdictCounts } from "../../parts/VerdictCounts";

interface Props {
  plan: Plan;
  rank: number;
  onTake: () => void;
}

export function PlanCard({ plan, rank, onTake }: Props) {
  const drawn = sketchOf(plan.layout);
  return (
    <li
      className="flex flex-col rounded-card border border-hair bg-card p-3"
      data-plan={rank}
      aria-label={`Starting layout ${rank}: ${plan.title}`}
    >
      <h3 className="text-[1rem]">
        <span className="num text-soft">{rank}</span> {plan.title}
      </h3>
      <Sketch summary={drawn} name={plan.title} box={boxOf(drawn)} />
      <p className="mt-1 text-[0.85rem] font-semibold">
        {counted(plan.inputs, "input")}, {counted(plan.stands, "stand")}, about {plan.minutes} min
      </p>
      {plan.inputs > 1 && (
        <div className="mt-1">
          <VerdictCounts counts={plan.counts} />
        </div>
      )}
      <button
        type="button"
        className={`${rank === 1 ? "btn-main" : "btn"} mt-2 w-full`}
        onClick={onTake}
      >
        Take this one
      </button>
      <Said of="Why" lines={plan.reasons} />
      <Said of="Gives up" lines={plan.gives_up} soft />
      <Said of="Watch for" lines={[plan.watch_for]} soft />
    </li>
  );
}

function Said({ of, lines, soft = false }: { of: string; lines: string[]; soft?: boolean }) {
  if (lines.length === 0) return null;
  return (
    <>
      <h4 className="mt-2 text-[0.85rem] font-bold">{of}</h4>
      <ul className={`list-disc space-y-0.5 pl-4 text-[0.83rem] ${soft ? "text-soft" : ""}`}>
        {lines.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
    </>
  );
}
