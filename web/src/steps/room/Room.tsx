/** Room: its walls and what covers them, where the kit stands, and what that does to it. */
import { memo, useState } from "react";
import type { RoomBoard, Room as RoomDoc } from "../../api/types";
import { useEditorPart } from "../../parts/editing";
import { Tick } from "../../parts/fields/Tick";
import { Views } from "../../parts/fields/Views";
import { KitFaults } from "../../parts/KitFaults";
import { Later } from "../../parts/Later";
import { useLast } from "../../parts/last";
import { useMe } from "../../parts/me";
import { OVER, UNDER, UNDER_BAR, useNarrow } from "../../parts/narrow";
import { ReadyForHands } from "../../parts/ReadyForHands";
import { SidePanel } from "../../parts/SidePanel";
import { useWaits } from "../../parts/waits";
import { BehindWalls } from "./BehindWalls";
import { Figures } from "./Figures";
import { Foot, type Which } from "./Foot";
import { KeepRoom } from "./KeepRoom";
import { RoomPlan } from "./plan/RoomPlan";
import { RoomPanel } from "./RoomPanel";
import { SpotLog, useTried } from "./SpotLog";
import { type HandHere, useHere } from "./useHere";
import { useGobo, usePose, useRoomBoard, useSetRoom } from "./useRoom";

const PLAIN: RoomDoc = {
  name: "Live room",
  width_m: 5,
  length_m: 6,
  height_m: 2.8,
  kit_x_m: 2.4,
  kit_y_m: 2,
  kit_turn_rad: 0,
  surfaces: {
    floor: "concrete floor",
    ceiling: "plasterboard ceiling",
    back: "plastered brick",
    front: "plastered brick",
    left: "plastered brick",
    right: "plastered brick",
  },
  doors: [],
  spaces: [],
  gobos: [],
};

export function Room() {
  return useEditorPart((s) => Boolean(s.doc.room)) ? <Drawn /> : <NoRoom />;
}

function Drawn() {
  const still = useEditorPart((s) => s.still.room) ?? null;
  const found = useRoomBoard(still);
  const kept = useLast(found.data);
  const fresh = found.data !== undefined && !found.isPlaceholderData;
  const narrow = useNarrow();
  const waits = useWaits(!kept && found.isFetching && found.failureCount === 0);
  return (
    <div className={narrow ? OVER : BESIDE}>
      <h1 className="sr-only">The room</h1>
      <ReadyForHands />
      <Live {...{ kept, fresh, waits }} trouble={found.error?.message} />
      {!narrow && (
        <SidePanel label="The room in numbers">
          <Later>
            <Numbers board={kept} waits={waits} />
          </Later>
        </SidePanel>
      )}
    </div>
  );
}

const BESIDE =
  "grid h-full grid-cols-[minmax(0,1fr)_310px] grid-rows-[minmax(0,1fr)_minmax(220px,35%)] max-[1050px]:grid-cols-[minmax(0,1fr)_270px]";

interface Kept {
  kept: RoomBoard | undefined;
  fresh: boolean;
  /** The first answer is on its way. */
  waits: boolean;
  trouble: string | undefined;
}

/** What follows a hand: the plan at every frame, the charts below as often as they can be read. */
function Live({ kept, fresh, ...told }: Kept) {
  const hand = useHere(fresh);
  return (
    <>
      <Plan board={kept} hand={hand} />
      <Below board={kept} hand={hand} {...told} />
    </>
  );
}

interface Followed {
  board: RoomBoard | undefined;
  hand: HandHere;
}

const Numbers = memo(function Numbers({
  board,
  waits,
}: Pick<Followed, "board"> & Pick<Kept, "waits">) {
  const room = useEditorPart((s) => s.still.room);
  // What the room does is told above its fields: they would be moved from under a hand.
  if (waits) return null;
  return (
    <div className="space-y-4 p-4">
      <KitFaults />
      <BehindWalls />
      {board && <InWords board={board} />}
      {room && <RoomPanel room={room} />}
    </div>
  );
});

function NoRoom() {
  const set = useSetRoom();
  return (
    <div className="max-w-lg space-y-3 p-6">
      <h1 className="text-xl">No room yet</h1>
      <p>
        Take a room of the studio, or draw a box and change its numbers. With a room, walls and
        ceiling are checked for every mic, and you see what the spot does to the low end.
      </p>
      <button type="button" className="btn-main" onClick={() => set(PLAIN)}>
        Draw a box
      </button>
      <KeepRoom room={null} />
    </div>
  );
}

const Plan = memo(function Plan({ board, hand }: Followed) {
  const still = useEditorPart((s) => s.still);
  const { room } = still;
  const pose = usePose();
  const onGobo = useGobo();
  const tried = useTried();
  const ruler = useMe();
  const [map, setMap] = useState(true);
  if (!room) return null;
  return (
    <section
      className="flex min-h-0 min-w-0 flex-col contain-strict"
      aria-label="The room from above"
    >
      <header className="flex flex-wrap items-center gap-x-3 gap-y-1 px-3 pt-2 text-[0.85rem]">
        <h2 className="text-[0.95rem]">{room.name}</h2>
        <span className="text-soft">drag the snare to move the kit, the handle to turn it</span>
        <Tick className="ml-auto items-center" checked={map} onTake={setMap}>
          Spots to try, half a metre apart; filled: smoother low end
        </Tick>
      </header>
      <RoomPlan
        layout={still}
        room={room}
        board={board}
        hand={hand}
        tried={tried}
        ruler={ruler}
        showMap={map}
        onGobo={onGobo}
        {...pose}
      />
    </section>
  );
});

const FOOT = [
  ["low", "Low end here"],
  ["decay", "Decay"],
  ["modes", "Modes"],
  ["spots", "Spots tried"],
] as const;
/** Where there is room for one of them, the numbers stand below the plan, too. */
const EITHER = [["numbers", "Numbers"], ...FOOT] as const;

const Below = memo(function Below(props: Followed & Pick<Kept, "trouble" | "waits">) {
  const { board, hand, trouble, waits } = props;
  const room = useEditorPart((s) => s.still.room);
  const pose = usePose();
  const narrow = useNarrow();
  const [view, setFoot] = useState<Which | "spots" | "numbers">(narrow ? "numbers" : "low");
  const foot = view === "numbers" && !narrow ? "low" : view;
  return (
    <Views
      small
      label="Below the plan"
      value={foot}
      options={narrow ? EITHER : FOOT}
      onTake={setFoot}
      bar={narrow ? UNDER_BAR : "flex px-4 py-1.5"}
      className={narrow ? UNDER : BELOW}
      view="min-h-0"
    >
      <Later>
        {foot === "numbers" ? (
          <Numbers board={board} waits={waits} />
        ) : foot === "spots" && room ? (
          <SpotLog room={room} onGo={(to) => pose.onPose(to, true)} />
        ) : board && foot !== "spots" ? (
          <Foot which={foot} board={board} hand={hand} />
        ) : (
          <p className="px-4 text-soft">{trouble ?? "Working it out…"}</p>
        )}
      </Later>
    </Views>
  );
});

const BELOW =
  "col-start-1 row-start-2 grid min-h-0 grid-rows-[auto_minmax(0,1fr)] border-t border-hair bg-panel contain-strict";

function InWords({ board }: { board: RoomBoard }) {
  const ruler = useMe();
  return (
    <>
      <Figures board={board} ruler={ruler} />
      <ul className="space-y-1 text-[0.9rem]" data-room-words>
        {board.decay.words.map((w) => (
          <li key={w}>{w}</li>
        ))}
      </ul>
    </>
  );
}
