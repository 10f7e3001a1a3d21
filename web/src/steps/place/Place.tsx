/** Place: the floor chart from above and in height, the tapes, and what is selected. */
import { useEffect, useState } from "react";
import { techniqueOf } from "../../core/edits";
import type { Ruler } from "../../core/units";
import type { Facing } from "../../core/view";
import { titlesOf, useSeenFrom } from "../../parts/chart/seenFrom";
import { TAPES_HIGH } from "../../parts/curves/Tapes";
import { useEditor, useEditorPart, useLit, useSelected } from "../../parts/editing";
import { Views } from "../../parts/fields/Views";
import { useTake } from "../../parts/hands";
import { Later } from "../../parts/Later";
import { useMe } from "../../parts/me";
import { OVER, UNDER, UNDER_BAR, useNarrow } from "../../parts/narrow";
import { ReadyForHands } from "../../parts/ReadyForHands";
import { SidePanel } from "../../parts/SidePanel";
import { LiveChart, LiveTapes, TapesSpace } from "./charts";
import { FitPanel } from "./FitPanel";
import { Inspector } from "./Inspector";
import { MicTable } from "./MicTable";
import { useStanding, useTechniques } from "./techniques/data";
import { TechniquePanel } from "./techniques/TechniquePanel";
import { WhatIf } from "./techniques/WhatIf";

const HEIGHTS_IN = { cm: "cm", "ft-in": "feet", hand: "hands" };
const NONE: string[] = [];
const FOOT = [
  ["tapes", "Tapes"],
  ["table", "Table"],
  ["what if", "What if"],
] as const;
const SIDE = [
  ["selected", "Selected"],
  ["techniques", "Techniques"],
  ["fit", "Fit"],
] as const;
const EITHER = [...SIDE, ...FOOT] as const;

type Foot = (typeof FOOT)[number][0];
type SideOf = (typeof SIDE)[number][0];
const isSide = (view: Foot | SideOf): view is SideOf => SIDE.some(([side]) => side === view);

/** What is open beside and below the chart, and how a selection changes it. */
function useOpened() {
  const editor = useEditor();
  const [foot, setFoot] = useState<Foot>("tapes");
  const [side, setSide] = useState<SideOf>("selected");
  const [below, setBelow] = useState<"side" | "foot">("side");
  const [opened, setOpened] = useState<string | null>(null);
  const openTechnique = (id: string | null) => {
    setOpened(id);
    setSide("techniques");
    if (id === null) setFoot((f) => (f === "what if" ? "tapes" : f));
  };
  const onSelected = (mic: string) => {
    const { doc, still } = editor.snapshot();
    if (side !== "techniques" || doc.mics.length !== still.mics.length) return;
    const own = techniqueOf(still, mic);
    if (own) setOpened(own.id);
    else setSide("selected");
  };
  return { foot, setFoot, side, setSide, below, setBelow, opened, openTechnique, onSelected };
}

/** Hears of a newly selected mic in the place of the whole step, which is not drawn anew for it. */
function WhenSelected({ tell }: { tell: (mic: string) => void }) {
  const selected = useSelected();
  // biome-ignore lint/correctness/useExhaustiveDependencies: told once, when it is selected
  useEffect(() => {
    if (selected) tell(selected);
  }, [selected]);
  return null;
}

export function Place() {
  const opened = useOpened();
  const narrow = useNarrow();
  const shown = useEditorPart((s) => s.still.techniques?.find((t) => t.id === opened.opened));
  const together = opened.side === "techniques" && shown ? shown.mics : NONE;
  return (
    <div className={narrow ? OVER : BESIDE}>
      <h1 className="sr-only">Place the mics</h1>
      <WhenSelected tell={opened.onSelected} />
      <ReadyForHands />
      {narrow ? <OneView together={together} /> : <TwoViews together={together} />}
      {narrow ? <Under {...opened} /> : <UnderAndBeside {...opened} />}
    </div>
  );
}

const BESIDE =
  "grid h-full grid-cols-[minmax(0,1fr)_288px] max-[1050px]:grid-cols-[minmax(0,1fr)_250px] grid-rows-[minmax(0,1fr)_auto]";

type Opened = ReturnType<typeof useOpened>;

/** The tapes below the chart and what is selected beside it. */
function UnderAndBeside(opened: Opened) {
  const { foot, setFoot, side, setSide } = opened;
  return (
    <>
      <Views
        small
        label="Below the chart"
        value={foot}
        options={FOOT}
        onTake={setFoot}
        bar="flex justify-end px-3 pt-1.5"
        className="col-start-1 row-start-2 min-w-0 border-t border-hair bg-panel"
      >
        <FootView {...opened} />
      </Views>
      <SidePanel label="What is selected">
        <Views
          small
          label="Beside the chart"
          value={side}
          options={SIDE}
          onTake={setSide}
          bar="mb-3"
          className="p-4"
        >
          <SideView {...opened} />
        </Views>
      </SidePanel>
    </>
  );
}

/** Where there is room for one of them: all in one row of tabs. */
function Under(opened: Opened) {
  const { foot, setFoot, side, setSide, below, setBelow } = opened;
  return (
    <Views
      small
      label="Below the chart"
      value={below === "foot" ? foot : side}
      options={EITHER}
      onTake={(view) => {
        if (isSide(view)) setSide(view);
        else setFoot(view);
        setBelow(isSide(view) ? "side" : "foot");
      }}
      bar={UNDER_BAR}
      className={UNDER}
    >
      {below === "foot" ? (
        <FootView {...opened} />
      ) : (
        <div className="px-4 pb-4">
          <SideView {...opened} />
        </div>
      )}
    </Views>
  );
}

function FootView({ foot, opened }: Opened) {
  if (foot === "table") return <MicTable />;
  if (foot === "what if") return <WhatIfOf taken={opened} />;
  return (
    <Later meanwhile={<TapesSpace />}>
      <LiveTapes />
    </Later>
  );
}

function SideView({ side, opened, openTechnique, setFoot, setBelow }: Opened) {
  if (side === "fit") return <FitPanel />;
  if (side === "selected")
    return (
      <Later>
        <Inspector onTechnique={openTechnique} />
      </Later>
    );
  return (
    <TechniquePanel
      opened={opened}
      open={openTechnique}
      onWhatIf={() => {
        setFoot("what if");
        setBelow("foot");
      }}
    />
  );
}

const TOOL = "btn px-2 py-0.5 text-[0.8rem]";

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
  const [second, setSecond] = useState<Exclude<Facing, "above">>("along");
  const drummer = lit.side === "drummer";
  const heights = titlesOf(lit.side);
  return (
    <div className="relative grid min-h-0 grid-cols-[1.34fr_1fr] divide-x divide-hair">
      <Behind />
      <LiveChart
        together={together}
        facing="above"
        title="From above"
        hint={drummer ? "drummer at the foot" : "audience at the foot"}
        tools={<PlanTools />}
      />
      {/* Whoever comes here looks at the plan first, which half the work brings sooner. */}
      <Later meanwhile={<div />}>
        <LiveChart
          together={together}
          facing={second}
          title={heights[second]}
          hint={`heights in ${HEIGHTS_IN[ruler.units]}`}
          tools={
            <button
              type="button"
              className={TOOL}
              onClick={() => setSecond(second === "along" ? "side" : "along")}
            >
              {second === "along" ? "Side" : "Front"}
            </button>
          }
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

/** The curves of the technique that is open, or what to do to see some. */
function WhatIfOf({ taken }: { taken: string | null }) {
  const standing = useStanding().data;
  const list = useTechniques().data;
  const row = standing?.find((r) => r.id === taken) ?? standing?.[0];
  const technique = list?.find((t) => t.id === row?.technique);
  if (row && technique) return <WhatIf key={row.id} row={row} technique={technique} />;
  return (
    <p className="px-4 pb-6 text-[0.9rem] text-soft" style={{ minHeight: TAPES_HIGH }}>
      {standing?.length === 0
        ? "Take a technique first: then one of its numbers can be slid here, with what it does to levels, distances and verdicts."
        : "Looking…"}
    </p>
  );
}
