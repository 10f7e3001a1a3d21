/** Kit: what stands there, where exactly, and how it is tuned. */
import { useQuery } from "@tanstack/react-query";
import { memo, useEffect, useState } from "react";
import { api, exactly } from "../../api/client";
import type { KitBoard } from "../../api/types";
import { partOf } from "../../core/kitParts";
import { Shared } from "../../core/shared";
import { useCalmPart, useEditorPart } from "../../parts/editing";
import { Views } from "../../parts/fields/Views";
import { KitFaults } from "../../parts/KitFaults";
import { Later, useTakenHold } from "../../parts/Later";
import { useLast } from "../../parts/last";
import { OVER, UNDER, UNDER_BAR, useNarrow } from "../../parts/narrow";
import { ReadyForHands } from "../../parts/ReadyForHands";
import { Chosen, useChosen } from "./chosen";
import { KitCharts } from "./KitChart";
import { KitPanel } from "./KitPanel";
import { KitTable } from "./KitTable";
import { PartPanel } from "./part/PartPanel";
import type { Ends } from "./tape/NextReading";
import { TapeWalk } from "./tape/TapeWalk";
import { TuningPanel } from "./tuning/TuningPanel";

const FOOT = [
  ["tape", "By tape"],
  ["tuning", "Tuning"],
  ["table", "Table"],
] as const;
const EITHER = [["part", "Drum or kit"], ...FOOT] as const;
type Foot = (typeof FOOT)[number][0];

/** The tape walk and the drummer's zones of the kit as it stands. */
function useKitBoard(skip: Ends[]) {
  const still = useEditorPart((s) => s.still);
  return useQuery({
    queryKey: ["kit-board", still.kit, skip],
    queryFn: ({ signal }) =>
      exactly<KitBoard>(api.POST("/api/kit/board", { body: { layout: still, skip }, signal })),
    placeholderData: (old) => old,
    gcTime: 10_000,
  });
}

export function Kit() {
  const [chosen] = useState(() => new Shared<string | null>(null));
  const [skip, setSkip] = useState<Ends[]>([]);
  const board = useLast(useKitBoard(skip).data);
  const narrow = useNarrow();
  const below = { board, skip, onChoose: chosen.set, onSkip: setSkip };
  return (
    <div className={narrow ? OVER : BESIDE}>
      <h1 className="sr-only">The kit</h1>
      <ReadyForHands />
      <Chosen value={chosen}>
        <KitCharts board={board} onChoose={chosen.set} />
        {narrow ? (
          <Under {...below} />
        ) : (
          <>
            <Below {...below} />
            <aside
              aria-label="Drum or kit"
              className="col-start-2 row-span-2 row-start-1 space-y-4 overflow-y-auto border-l border-hair bg-panel p-4 contain-strict"
            >
              <Later>
                <Beside onChoose={chosen.set} />
              </Later>
            </aside>
          </>
        )}
      </Chosen>
    </div>
  );
}

const BESIDE =
  "grid h-full grid-cols-[minmax(0,1fr)_288px] grid-rows-[minmax(0,1fr)_minmax(230px,37%)] max-[1050px]:grid-cols-[minmax(0,1fr)_250px]";

interface Choosing {
  onChoose: (id: string | null) => void;
}

interface Walked {
  board: KitBoard | undefined;
  skip: Ends[];
  onSkip: (skip: Ends[]) => void;
}

type BelowProps = Walked & Choosing;

const Walk = memo(function Walk({ board, skip, onSkip }: Walked) {
  return (
    <Later>
      <TapeWalk
        board={board}
        skipped={skip.length}
        onSkip={(ends) => onSkip([...skip, ends])}
        onUnskip={() => onSkip([])}
      />
    </Later>
  );
});

/** The tape, the tuning or the table. */
const Below = memo(function Below({ board, skip, onChoose, onSkip }: BelowProps) {
  const [foot, setFoot] = useState<Foot>("tape");
  return (
    <Views
      small
      label="Below the chart"
      value={foot}
      options={FOOT}
      onTake={setFoot}
      bar="flex px-4 py-1.5"
      className="col-start-1 row-start-2 grid min-h-0 grid-rows-[auto_minmax(0,1fr)] border-t border-hair bg-panel contain-strict"
      view="min-h-0"
    >
      <FootView {...{ foot, board, skip, onChoose, onSkip }} />
    </Views>
  );
});

function FootView({ foot, board, skip, onChoose, onSkip }: BelowProps & { foot: Foot }) {
  if (foot === "tuning") return <TuningPanel onChoose={onChoose} />;
  if (foot === "table") return <KitTable {...{ board, onChoose }} />;
  return <Walk {...{ board, skip, onSkip }} />;
}

/** Where there is room for one of them: the drum or kit, or what stands below it at a desk. */
const Under = memo(function Under(props: BelowProps) {
  const [view, setView] = useState<Foot | "part">("part");
  const chosen = useChosen();
  useEffect(() => {
    if (chosen) setView("part");
  }, [chosen]);
  return (
    <Views
      small
      label="Below the chart"
      value={view}
      options={EITHER}
      onTake={setView}
      bar={UNDER_BAR}
      className={UNDER}
    >
      {view === "part" ? (
        <div className="space-y-4 px-4 pb-4">
          <Later>
            <Beside onChoose={props.onChoose} />
          </Later>
        </div>
      ) : (
        <FootView {...props} foot={view} />
      )}
    </Views>
  );
});

/** The chosen drum or cymbal, or the kit as a whole. */
function Beside({ onChoose }: Choosing) {
  // After the drawings: whoever takes hold of a drum looks at those first.
  return <Opened chosen={useTakenHold(useChosen())} onChoose={onChoose} />;
}

const Opened = memo(function Opened({ chosen, onChoose }: Choosing & { chosen: string | null }) {
  const part = useCalmPart((s) => partOf(s.doc, chosen));
  return (
    <>
      <KitFaults />
      {part ? (
        <>
          <button
            type="button"
            className="text-[0.88rem] text-snare underline"
            onClick={() => onChoose(null)}
          >
            The kit as a whole
          </button>
          <PartPanel key={part.id} part={part} onGone={() => onChoose(null)} />
        </>
      ) : (
        <KitPanel onChoose={onChoose} />
      )}
    </>
  );
});
