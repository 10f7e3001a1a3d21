/** Below the plan: the low end where the kit stands, decay by band, modes; drawn and as tables. */
import type { RoomBoard } from "../../api/types";
import { hzText } from "../../core/units";
import { DecayChart, ModeChart } from "../../parts/curves/RoomCharts";
import { HALVES, LowEnd } from "./LowEnd";
import type { HandHere } from "./useHere";

const MOST_MODES = 60;

export type Which = "decay" | "modes" | "low";

interface Props {
  which: Which;
  board: RoomBoard;
  hand: HandHere;
}

export function Foot({ which, board, hand }: Props) {
  if (which === "low") return <LowEnd spots={board.spots} hand={hand} />;
  if (which === "modes") return <Modes board={board} />;
  return (
    <div className={HALVES}>
      <DecayChart board={board} />
      <div className="min-h-0 overflow-y-auto text-[0.85rem]">
        <DecayTable board={board} />
      </div>
    </div>
  );
}

function Modes({ board }: { board: RoomBoard }) {
  return (
    <div className={HALVES}>
      <div>
        <ModeChart board={board} />
        <ul className="text-[0.88rem]">
          {board.modes_words.map((w) => (
            <li key={w}>{w}</li>
          ))}
        </ul>
      </div>
      <div className="min-h-0 overflow-y-auto">
        <ModeTable modes={board.modes} />
      </div>
    </div>
  );
}

function ModeTable({ modes }: { modes: RoomBoard["modes"] }) {
  return (
    <table className="w-full text-[0.85rem]">
      <caption className="sr-only">Modes of the room</caption>
      <thead className="sticky top-0 bg-panel text-left text-soft">
        <tr>
          {["Hz", "Order", "Kind"].map((h) => (
            <th key={h} className="font-normal">
              {h}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {modes.slice(0, MOST_MODES).map((m, i) => (
          <tr key={i}>
            <td className="num">{m.hz.toFixed(1)}</td>
            <td className="num">{m.order.join(" ")}</td>
            <td>{m.kind}</td>
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
            {["Band", "Eyring, s", "Sabine, s"].map((h) => (
              <th key={h} className="font-normal">
                {h}
              </th>
            ))}
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
      {d.mics.length > 0 && <p className="mt-2">{d.mics.map(directWords).join("; ")}.</p>}
      <p className="mt-1 text-[0.78rem] text-soft">
        {d.areas.map((a) => `${a.where} ${a.m2.toFixed(0)} m² ${a.material}`).join(", ")}. Kuttruff,
        Room Acoustics.
      </p>
    </>
  );
}

const ELSEWHERE = {
  "open door": "stands next door and hears the kit by the open door",
  "shut door": "stands next door behind a shut door: open it, or it hears little but low notes",
  wall: "stands next door, where no door leads: it hears only what comes through the wall",
  outside: "stands outside the room",
};

/** What a mic off the kit hears of the snare against the room. */
function directWords(m: RoomBoard["decay"]["mics"][number]): string {
  if (m.reached !== "here") return `${m.mic} ${ELSEWHERE[m.reached]}`;
  const side = m.direct_db >= 0 ? "over" : "under";
  return `${m.mic} hears the snare ${Math.abs(m.direct_db).toFixed(0)} dB ${side} the room`;
}
