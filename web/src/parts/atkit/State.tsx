/** Planned or as it stands: which of the two the steps of the plan show, and the way between them. */
import { createContext, type ReactNode, useContext, useEffect, useMemo, useState } from "react";
import type { AtKit, Layout } from "../../api/types";
import type { Hands } from "../../core/hands";
import { measuredBy } from "../../core/kitlog";
import { Shown } from "../../core/shown";
import { wire } from "../../core/wire";
import { micsInWords } from "../../core/words";
import { EditorContext, useEditor, useEditorPart } from "../editing";
import { Segmented } from "../fields/Segmented";
import { HandsContext, handsOn, useHands } from "../hands";
import { LitHere } from "../lit";
import { OnceLetGo } from "../OnceLetGo";
import { useToast } from "../toast";
import { useAtKit } from "./log";
import { type Stands, useStands } from "./stands";

export type LayoutState = "planned" | "stands";

interface AsShown {
  planned: Layout;
  standing: AtKit["standing"];
}

const AsShownContext = createContext<AsShown | null>(null);

/** The plan and how it stands, where that is what is shown; null where the plan is. */
export const useAsShown = () => useContext(AsShownContext);

interface Props {
  state: LayoutState;
  choose: (state: LayoutState) => void;
  children: ReactNode;
}

/** One tree for both, so that what is open and selected stays so from one to the other. */
export function InState({ state, choose, children }: Props) {
  const kit = useAtKit();
  const plan = useEditor();
  const hands = useHands();
  const was = useEditorPart((s) => s.out.measured);
  const read = measuredBy(kit.log);
  // Before the log has come the layout itself says so: nothing below the bar jumps when it does.
  const measured = read || (was && !kit.known);
  const wanted = state === "stands" && measured;
  const stood = useStands(kit.log, "overheads first", wanted && read);
  const shown = useShownEditor(wanted ? stood : null);
  return (
    <AsShownContext value={shown?.how ?? null}>
      <EditorContext value={shown?.editor ?? plan}>
        <HandsContext value={shown?.hands ?? hands}>
          <LitHere>
            <div className="flex h-full flex-col">
              {measured && (
                <OnceLetGo>
                  <Bar state={wanted ? "stands" : "planned"} {...{ choose, stood }} />
                </OnceLetGo>
              )}
              <div
                className={`min-h-0 flex-1 ${wanted && !shown ? "pointer-events-none opacity-40" : ""}`}
                aria-busy={wanted && !shown}
              >
                {children}
              </div>
            </div>
          </LitHere>
        </HandsContext>
      </EditorContext>
    </AsShownContext>
  );
}

const STATES = [
  ["planned", "Planned"],
  ["stands", "As it stands"],
] as const;

function Bar({ state, choose, stood }: Omit<Props, "children"> & { stood: Stands }) {
  const { answer, error } = stood;
  const words = answer ? barWords(answer) : (error?.message ?? "Looking at the kit…");
  return (
    <div
      className={`flex items-center gap-3 border-b border-hair px-3 py-1 text-[0.86rem] ${state === "stands" ? "bg-ring/15" : "bg-panel"}`}
      data-state-shown={state}
    >
      <span className="shrink-0">
        <Segmented small label="What is shown" value={state} options={STATES} onTake={choose} />
      </span>
      {state === "stands" && (
        <p className="min-w-0 leading-tight" title={words}>
          {words}
        </p>
      )}
    </div>
  );
}

function barWords({ standing, compared }: AtKit): string {
  const known = standing.mics.filter((m) => m.state !== "planned").length;
  const all = standing.mics.length;
  const rest = known < all ? ", the rest as planned, by eye" : "";
  const fits = standing.readings.every((r) => r.state === "fits") ? "" : ` ${standing.words}`;
  return `${known} of ${micsInWords(all)} measured${rest}.${fits} ${compared.words}`;
}

interface AsShownNow {
  editor: Shown;
  hands: Hands;
  how: AsShown;
}

/** An editor of the layout as it stands, as long as that is wanted and known. */
function useShownEditor(stood: Stands | null): AsShownNow | null {
  const plan = useEditor();
  const say = useToast();
  const [made, make] = useState<{ editor: Shown; hands: Hands } | null>(null);
  const standing = stood?.answer?.standing;
  const planned = stood?.of;
  const there = standing !== undefined;
  // biome-ignore lint/correctness/useExhaustiveDependencies: made once it is known, then told what is new
  useEffect(() => {
    if (!standing) return;
    const editor = new Shown(plan.snapshot().out, standing.layout, wire, {
      now: () => plan.snapshot().still,
      commit: (doc, what, soon, key) =>
        soon ? plan.commitSoon(doc, what, key) : plan.commit(doc, what, key),
      refuse: say,
    });
    make({ editor, hands: handsOn(editor, say) });
    return () => {
      editor.close();
      make(null);
    };
  }, [plan, say, there]);
  useEffect(() => {
    if (standing && planned) made?.editor.stand(standing.layout, planned);
  }, [made, standing, planned]);
  const how = useMemo(
    () => (standing && planned ? { planned, standing } : null),
    [planned, standing],
  );
  return made && how ? { ...made, how } : null;
}
