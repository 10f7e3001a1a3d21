/** Place: the floor chart from above and in height, the tapes, and what is selected. */
import { useEffect, useState } from "react";
import { techniqueOf } from "../../core/edits";
import { TAPES_HIGH } from "../../parts/curves/Tapes";
import { useEditor, useEditorPart, useSelected } from "../../parts/editing";
import { Views } from "../../parts/fields/Views";
import { Later } from "../../parts/Later";
import { OVER, UNDER, UNDER_BAR, useNarrow } from "../../parts/narrow";
import { ReadyForHands } from "../../parts/ReadyForHands";
import { SidePanel } from "../../parts/SidePanel";
import { ChartViews } from "./ChartViews";
import { LiveTapes, TapesSpace } from "./charts";
import { FitPanel } from "./FitPanel";
import { Inspector } from "./Inspector";
import { MicTable } from "./MicTable";
import { useStanding, useTechniques } from "./techniques/data";
import { TechniquePanel } from "./techniques/TechniquePanel";
import { WhatIf } from "./techniques/WhatIf";

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
      <ChartViews together={together} />
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
