/** Brief: short questions before any mic, and the starting layouts that follow from the answers. */
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { api, exactly } from "../../api/client";
import type { Brief as Answers, BriefOut, Layout, Piece, Plan } from "../../api/types";
import { mixed, type Picks } from "../../core/mix";
import { useEditor, useEditorPart } from "../../parts/editing";
import { useToast } from "../../parts/toast";
import { MixTable } from "./MixTable";
import { PlanCard } from "./PlanCard";
import { Questions } from "./Questions";
import { Rules } from "./Rules";

export function useBrief() {
  return useQuery({
    queryKey: ["brief"],
    queryFn: () => exactly<BriefOut>(api.GET("/api/brief")),
    staleTime: Number.POSITIVE_INFINITY,
  });
}

function usePlans(brief: Answers | undefined) {
  const id = useEditorPart((s) => s.out.id);
  const still = useEditorPart((s) => s.still);
  return useQuery({
    queryKey: ["plans", id, brief, still.kit, still.room, still.air],
    queryFn: () =>
      exactly<Plan[]>(
        api.POST("/api/layouts/{pk}/plans", {
          params: { path: { pk: id } },
          body: { layout: still, brief: brief as Answers },
        }),
      ),
    enabled: Boolean(brief),
    placeholderData: (old) => old,
    gcTime: 10_000,
  });
}

export function Brief() {
  const editor = useEditor();
  const go = useNavigate();
  const say = useToast();
  const id = useEditorPart((s) => s.out.id);
  const kept = useEditorPart((s) => s.doc.brief ?? null);
  const mics = useEditorPart((s) => s.doc.mics.length);
  const asked = useBrief();
  const brief: Answers | undefined = asked.data && { ...asked.data.start, ...kept };
  const plans = usePlans(brief);
  const [picks, setPicks] = useState<Picks | null>(null);

  const answer = (change: Partial<Answers>, what: string) => {
    if (!brief) return;
    editor.commitSoon({ ...editor.snapshot().doc, brief: { ...brief, ...change } }, what);
  };
  const put = (made: Layout, what: string) => {
    const now = editor.snapshot().doc;
    editor.commit({ ...made, name: now.name, notes: now.notes, thresholds: now.thresholds }, what);
    go(`/layouts/${id}/place`);
    say(`${what}: ${made.mics.length} mics`, {
      label: "Undo",
      run: () => void editor.step("undo"),
    });
  };
  const build = async (pieces: Piece[], what: string) => {
    if (!brief) return;
    try {
      const { layout } = await exactly<{ layout: Layout }>(
        api.POST("/api/layouts/{pk}/build", {
          params: { path: { pk: id } },
          body: { layout: editor.snapshot().doc, brief, pieces },
        }),
      );
      put(layout, what);
    } catch (error) {
      say((error as Error).message);
    }
  };
  return (
    <div className="grid h-full grid-cols-[minmax(340px,0.8fr)_minmax(0,1.5fr)]">
      <section
        aria-label="Questions"
        className="overflow-y-auto border-r border-hair bg-panel px-5 py-4"
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
        <div className="mb-2 flex items-baseline gap-3">
          <h2 className="text-lg">Starting layouts</h2>
          <p className="text-[0.85rem] text-soft">
            {mics > 0
              ? `Taking one replaces the ${mics} mics there are; undo brings them back.`
              : "Take one, mix two, or start empty."}
          </p>
          <button
            type="button"
            className="btn ml-auto"
            onClick={() => void build([], "Started empty")}
          >
            Start empty
          </button>
        </div>
        {plans.error && (
          <p role="alert" className="text-hollow">
            {plans.error.message}
          </p>
        )}
        {plans.data?.length === 0 && (
          <p>
            Nothing fits these limits. Allow more minutes or inputs, or plan without the locker.
          </p>
        )}
        <ol className="grid grid-cols-3 gap-3 max-[1180px]:grid-cols-2">
          {plans.data?.map((plan, i) => (
            <PlanCard
              key={plan.title}
              plan={plan}
              rank={i + 1}
              onTake={() => void build(plan.pieces, `Took ${plan.title}`.slice(0, 110))}
            />
          ))}
        </ol>
        {plans.data && plans.data.length > 1 && (
          <MixTable
            plans={plans.data}
            picks={picks ?? {}}
            onPick={(part, from) => setPicks({ ...picks, [part]: from })}
            onTake={() => void build(mixed(plans.data, picks ?? {}), "Took a mix")}
          />
        )}
        {asked.data && <Rules rows={asked.data.rules} />}
      </section>
    </div>
  );
}
