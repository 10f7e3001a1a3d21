/** Brief: short questions before any mic, and the starting layouts that follow from the answers. */
import { useState } from "react";
import type { Piece, Plan } from "../../api/types";
import { mixed, type Picks, partsIn } from "../../core/mix";
import { useEditorPart } from "../../parts/editing";
import { Later } from "../../parts/Later";
import { MixTable } from "./MixTable";
import { PlanCard } from "./PlanCard";
import { Questions } from "./Questions";
import { Rules } from "./Rules";
import { useBrief } from "./useBrief";

type Build = (pieces: Piece[], what: string) => Promise<void>;

export function Brief() {
  const { asked, brief, plans, build, answer } = useBrief();
  return (
    <div className="grid h-full grid-cols-[minmax(340px,0.8fr)_minmax(0,1.5fr)] narrow:relative narrow:block narrow:overflow-y-auto">
      <section
        aria-label="Questions"
        className="overflow-y-auto border-r border-hair bg-panel px-5 py-4 narrow:border-r-0 narrow:border-b"
      >
        <h1 className="text-xl">Before the first mic</h1>
        <p className="mt-1 mb-3 text-[0.88rem] text-soft">
          Every answer can be changed later. What it changes is said below it.
        </p>
        {asked.error && <p role="alert">{asked.error.message}</p>}
        {asked.data && brief && (
          <Questions asked={asked.data.questions} brief={brief} onAnswer={answer} />
        )}
      </section>
      <section aria-label="Starting layouts" className="overflow-y-auto px-5 py-4">
        <Top build={build} ready={Boolean(brief)} />
        {plans.error && (
          <p role="alert" className="text-hollow">
            {plans.error.message}
          </p>
        )}
        <Later>
          {plans.data && <Plans plans={plans.data} build={build} />}
          {asked.data && <Rules rows={asked.data.rules} />}
        </Later>
      </section>
    </div>
  );
}

function Top({ build, ready }: { build: Build; ready: boolean }) {
  const mics = useEditorPart((s) => s.still.mics.length);
  return (
    <div className="mb-2 flex items-baseline gap-3">
      <h2 className="text-lg">Starting layouts</h2>
      <p className="text-[0.85rem] text-soft">
        {mics > 0
          ? `Taking one replaces the ${mics === 1 ? "mic there is" : `${mics} mics there are`}; undo brings back what was.`
          : "Take one, mix two, or start empty."}
      </p>
      <button
        type="button"
        className="btn ml-auto"
        disabled={!ready}
        onClick={() => void build([], "Started empty")}
      >
        Start empty
      </button>
    </div>
  );
}

function Plans({ plans, build }: { plans: Plan[]; build: Build }) {
  const [picks, setPicks] = useState<Picks>({});
  if (!plans.length)
    return (
      <p>Nothing fits these limits. Allow more minutes or inputs, or plan without the locker.</p>
    );
  return (
    <>
      <ol className="grid grid-cols-3 gap-3 max-[1180px]:grid-cols-2 max-[640px]:grid-cols-1">
        {plans.map((plan, i) => (
          <PlanCard
            key={plan.title}
            plan={plan}
            rank={i + 1}
            onTake={() => void build(plan.pieces, `Took ${plan.title}`.slice(0, 110))}
          />
        ))}
      </ol>
      {plans.length > 1 && partsIn(plans).length > 1 && (
        <MixTable
          plans={plans}
          picks={picks}
          onPick={(part, from) => setPicks({ ...picks, [part]: from })}
          onTake={() => void build(mixed(plans, picks), "Took a mix")}
        />
      )}
    </>
  );
}
