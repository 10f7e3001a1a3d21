/** The charts of Place: which view each is, and what can be pressed over it. */
import type { Ruler } from "../../core/units";
import { useHeights, useSeenFrom } from "../../parts/chart/seenFrom";
import { useEditorPart, useLit } from "../../parts/editing";
import { useTake } from "../../parts/hands";
import { Later } from "../../parts/Later";
import { useMe } from "../../parts/me";
import { useNarrow } from "../../parts/narrow";
import { LiveChart } from "./charts";

const HEIGHTS_IN = { cm: "cm", "ft-in": "feet", hand: "hands" };
const TOOL = "btn px-2 py-0.5 text-[0.8rem]";

/** The plan and a view in height, or one of them where there is room for one. */
export function ChartViews({ together }: { together: string[] }) {
  return useNarrow() ? <OneView together={together} /> : <TwoViews together={together} />;
}

/** One of the views, where there is room for one. */
function OneView({ together }: { together: string[] }) {
  const { facing, title, turn } = useSeenFrom();
  return (
    <div className="relative grid min-h-0">
      <Behind />
      <LiveChart
        key={facing}
        {...{ together, facing, title }}
        hint=""
        tools={
          <>
            {turn}
            {facing === "above" && (
              <span className="order-last flex basis-full gap-1">
                <PlanTools />
              </span>
            )}
          </>
        }
      />
    </div>
  );
}

function TwoViews({ together }: { together: string[] }) {
  const lit = useLit();
  const ruler: Ruler = useMe();
  const { facing, title, turn } = useHeights();
  return (
    <div className="relative grid min-h-0 grid-cols-[1.34fr_1fr] divide-x divide-hair">
      <Behind />
      <LiveChart
        together={together}
        facing="above"
        title="From above"
        hint={`${lit.side} at the foot`}
        tools={<PlanTools />}
      />
      {/* Whoever comes here looks at the plan first, which half the work brings sooner. */}
      <Later meanwhile={<div />}>
        <LiveChart
          together={together}
          {...{ facing, title }}
          hint={`heights in ${HEIGHTS_IN[ruler.units]}`}
          tools={turn}
        />
      </Later>
    </div>
  );
}

/** Said while answers take so long that what is shown is not where the hand is. */
function Behind() {
  const behind = useEditorPart((s) => s.behind);
  return (
    <p
      role="status"
      className="pointer-events-none absolute bottom-2 left-3 z-10 rounded-md bg-ink px-2 py-0.5 text-[0.82rem] text-panel empty:hidden"
    >
      {behind && "The numbers are behind your hand"}
    </p>
  );
}

function PlanTools() {
  const lit = useLit();
  const take = useTake();
  const drummer = lit.side === "drummer";
  const add = async () => {
    const done = await take({ do: "add-mic" });
    if (done?.made) lit.select(done.made);
  };
  return (
    <>
      <button type="button" className={TOOL} onClick={() => void add()}>
        Add a mic
      </button>
      <button
        type="button"
        className={TOOL}
        onClick={() => lit.setSide(drummer ? "audience" : "drummer")}
      >
        {drummer ? "Audience view" : "Drummer view"}
      </button>
    </>
  );
}
