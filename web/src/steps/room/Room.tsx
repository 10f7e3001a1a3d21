/** Room: its walls and what covers them, where the kit stands, and what that does to it. */
import { useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { api, exactly } from "../../api/client";
import type { Layout, RoomBoard, Room as RoomDoc } from "../../api/types";
import { dbText, hzText, type Ruler } from "../../core/units";
import { useEditorPart } from "../../parts/editing";
import { useMe } from "../../parts/me";
import { Segmented } from "../../parts/Segmented";
import { HandsProvider, useKitHands } from "../kit/hands";
import { DecayChart, Figures, LowEndChart, ModeChart } from "./charts";
import { KeepRoom, RoomPanel, useSetRoom } from "./RoomPanel";
import { type Pose, RoomPlan } from "./RoomPlan";
import { SpotLog, useTried } from "./SpotLog";

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
  return (
    <HandsProvider>
      <Work />
    </HandsProvider>
  );
}

/** What the room does to sound; asked again whenever something that matters has changed. */
function useRoomBoard(room: RoomDoc | null) {
  const still = useEditorPart((s) => s.still);
  return useQuery({
    queryKey: ["room-board", room, still.air, still.kit.rug, still.mics.map((m) => m.position_m)],
    queryFn: () => exactly<RoomBoard>(api.POST("/api/room/board", { body: { layout: still } })),
    enabled: room !== null,
    placeholderData: (old) => old,
    gcTime: 10_000,
  });
}

function usePose() {
  const hands = useKitHands();
  return useMemo(() => {
    const make = (pose: Pose) => () => ({
      do: "pose" as const,
      x_m: pose.x,
      y_m: pose.y,
      turn_rad: pose.turn,
    });
    return {
      onPose: (pose: Pose, done: boolean) => {
        if (done) void hands.commit(make(pose));
        else hands.preview(make(pose));
      },
      onNudge: (by: Pose) =>
        void hands.commit((doc: Layout) =>
          doc.room
            ? make({
                x: doc.room.kit_x_m + by.x,
                y: doc.room.kit_y_m + by.y,
                turn: (doc.room.kit_turn_rad ?? 0) + by.turn,
              })()
            : null,
        ),
    };
  }, [hands]);
}

function Work() {
  const layout = useEditorPart((s) => s.doc);
  const still = useEditorPart((s) => s.still);
  const room = layout.room ?? null;
  const found = useRoomBoard(still.room ?? null);
  const pose = usePose();
  const tried = useTried();
  const ruler: Ruler = useMe();
  const set = useSetRoom();
  const [foot, setFoot] = useState<"decay" | "modes" | "low" | "spots">("low");
  const [map, setMap] = useState(true);
  if (!room)
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
  const board = found.data;
  return (
    <div className="grid h-full grid-cols-[minmax(0,1fr)_310px] grid-rows-[minmax(0,1fr)_minmax(220px,35%)] max-[1050px]:grid-cols-[minmax(0,1fr)_270px]">
      <h1 className="sr-only">The room</h1>
      <section className="flex min-h-0 min-w-0 flex-col" aria-label="The room from above">
        <header className="flex flex-wrap items-center gap-x-3 gap-y-1 px-3 pt-2 text-[0.85rem]">
          <h2 className="text-[0.95rem]">{room.name}</h2>
          <span className="text-soft">drag the snare to move the kit, the handle to turn it</span>
          <label className="ml-auto flex items-center gap-1.5">
            <input type="checkbox" checked={map} onChange={(e) => setMap(e.target.checked)} />
            Spots to try, half a metre apart; filled: smoother low end
          </label>
        </header>
        <RoomPlan
          layout={layout}
          room={room}
          board={board}
          tried={tried}
          ruler={ruler}
          showMap={map}
          {...pose}
        />
      </section>
      <div className="col-start-1 row-start-2 grid min-h-0 grid-rows-[auto_minmax(0,1fr)] border-t border-hair bg-panel">
        <div className="flex px-4 py-1.5">
          <Segmented
            small
            label="Below the plan"
            value={foot}
            options={[
              ["low", "Low end here"],
              ["decay", "Decay"],
              ["modes", "Modes"],
              ["spots", "Spots tried"],
            ]}
            onTake={setFoot}
          />
        </div>
        {foot === "spots" ? (
          <SpotLog room={room} onGo={(to) => pose.onPose(to, true)} />
        ) : board ? (
          <Foot which={foot} board={board} />
        ) : (
          <p className="px-4 text-soft">{found.error?.message ?? "Working it out…"}</p>
        )}
      </div>
      <aside
        aria-label="The room in numbers"
        className="col-start-2 row-span-2 row-start-1 space-y-4 overflow-y-auto border-l border-hair bg-panel p-4"
      >
        {board && <Figures board={board} ruler={ruler} />}
        {board && (
          <ul className="space-y-1 text-[0.9rem]" data-room-words>
            {board.decay.words.map((w) => (
              <li key={w}>{w}</li>
            ))}
          </ul>
        )}
        <RoomPanel room={room} />
      </aside>
    </div>
  );
}

function Foot({ which, board }: { which: "decay" | "modes" | "low"; board: RoomBoard }) {
  const halves = "grid h-full min-h-0 grid-cols-[minmax(0,1.2fr)_minmax(0,1fr)] gap-5 px-4 pb-2";
  if (which === "low")
    return (
      <div className={halves}>
        <LowEndChart board={board} />
        <div className="min-h-0 overflow-y-auto text-[0.88rem]">
          <p>
            What the nearest walls, floor and ceiling do to a source where the kit stands:{" "}
            <b className="text-kick">kick</b> drawn through, <b className="text-snare">snare</b>{" "}
            dashed, <b className="text-ring">overhead height</b> dotted, in dB against open air.
          </p>
          {board.spots.roughness_db !== null && (
            <p className="mt-1">
              It sways by{" "}
              <strong className="num" data-rough>
                {board.spots.roughness_db.toFixed(1)} dB
              </strong>{" "}
              here
              {board.spots.smoothest_db !== null && (
                <>
                  ; the smoothest spot of the map by{" "}
                  <span className="num">{board.spots.smoothest_db?.toFixed(1)} dB</span>
                </>
              )}
              .
            </p>
          )}
          <LowTable board={board} />
          <p className="mt-1 text-[0.78rem] text-soft">
            Images of the source in the surfaces round it (Waterhouse 1958); furniture and people
            are not in it. The ear decides.
          </p>
        </div>
      </div>
    );
  if (which === "decay")
    return (
      <div className={halves}>
        <DecayChart board={board} />
        <div className="min-h-0 overflow-y-auto text-[0.85rem]">
          <DecayTable board={board} />
        </div>
      </div>
    );
  return (
    <div className={halves}>
      <div>
        <ModeChart board={board} />
        <ul className="text-[0.88rem]">
          {board.modes_words.map((w) => (
            <li key={w}>{w}</li>
          ))}
        </ul>
      </div>
      <div className="min-h-0 overflow-y-auto">
        <table className="w-full text-[0.85rem]">
          <caption className="sr-only">Modes of the room</caption>
          <thead className="sticky top-0 bg-panel text-left text-soft">
            <tr>
              <th className="font-normal">Hz</th>
              <th className="font-normal">Order</th>
              <th className="font-normal">Kind</th>
            </tr>
          </thead>
          <tbody>
            {board.modes.slice(0, 60).map((m, i) => (
              <tr key={i}>
                <td className="num">{m.hz.toFixed(1)}</td>
                <td className="num">{m.order.join(" ")}</td>
                <td>{m.kind}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </div>
  );
}

const OCTAVES = [40, 63, 100, 160, 250];

/** The low end as a table: the three curves at five frequencies. */
function LowTable({ board }: { board: RoomBoard }) {
  const { frequency_hz, curves } = board.spots;
  const nearest = (f: number) =>
    frequency_hz.reduce(
      (best, g, i) => (Math.abs(g - f) < Math.abs((frequency_hz[best] ?? 0) - f) ? i : best),
      0,
    );
  return (
    <table className="mt-1 w-full text-[0.85rem]">
      <caption className="sr-only">Boundary response where the kit stands, dB</caption>
      <thead className="text-left text-soft">
        <tr>
          <th className="font-normal">dB at Hz</th>
          {OCTAVES.map((f) => (
            <th key={f} className="num font-normal">
              {f}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {Object.entries(curves).map(([name, values]) => (
          <tr key={name}>
            <th scope="row" className="text-left font-normal">
              {name}
            </th>
            {OCTAVES.map((f) => (
              <td key={f} className="num">
                {dbText(values[nearest(f)] ?? 0)}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function DecayTable({ board }: { board: RoomBoard }) {
  const d = board.decay;
  return (
    <>
      <table className="w-full">
        <caption className="sr-only">Decay by octave band, seconds</caption>
        <thead className="text-left text-soft">
          <tr>
            <th className="font-normal">Band</th>
            <th className="font-normal">Eyring, s</th>
            <th className="font-normal">Sabine, s</th>
          </tr>
        </thead>
        <tbody>
          {d.bands_hz.map((f, i) => (
            <tr key={f}>
              <td className="num">{hzText(f)}</td>
              <td className="num font-semibold">{d.eyring_s[i]?.toFixed(2)}</td>
              <td className="num">{d.sabine_s[i]?.toFixed(2)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {d.mics.length > 0 && (
        <p className="mt-2">
          {d.mics
            .map((m) =>
              m.elsewhere
                ? `${m.mic} stands in another space`
                : `${m.mic} hears the snare ${Math.abs(m.direct_db).toFixed(0)} dB ${m.direct_db >= 0 ? "over" : "under"} the room`,
            )
            .join("; ")}
          .
        </p>
      )}
      <p className="mt-1 text-[0.78rem] text-soft">
        {d.areas.map((a) => `${a.where} ${a.m2.toFixed(0)} m² ${a.material}`).join(", ")}. Kuttruff,
        Room Acoustics.
      </p>
    </>
  );
}
