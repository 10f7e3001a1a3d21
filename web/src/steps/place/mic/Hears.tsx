/** What reaches a mic from each drum: tape, path where it differs, time, level, sign. */
import { useState } from "react";
import type { Board, Mic } from "../../../api/types";
import {
  lengthText,
  lengthWithUnit,
  msText,
  type Ruler,
  signedText,
  unitMark,
} from "../../../core/units";
import { useCalmNumbers } from "../../../parts/editing";
import { Told } from "../../../parts/fields/Hint";
import { useMe } from "../../../parts/me";

const SIGN: Record<string, string> = { "1": "+", "-1": "−", "0": "?" };

export function Hears({ mic }: { mic: Mic }) {
  const [open, setOpen] = useState(false);
  return (
    <details onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary className="font-bold">What reaches it</summary>
      {open && <Reaches mic={mic} />}
    </details>
  );
}

function Reaches({ mic }: { mic: Mic }) {
  const board = useCalmNumbers((s) => s.board);
  const ruler: Ruler = useMe();
  const row = board?.mic_ids.indexOf(mic.id) ?? -1;
  if (!board || row < 0) return null;
  return (
    <>
      <table className="mt-1 w-full text-[0.82rem]">
        <thead className="text-left text-soft">
          <tr>
            {["Drum", `Tape${unitMark(ruler)}`, "ms", "dB", "First"].map((h) => (
              <th key={h} className="font-normal">
                {h}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {board.sources.map((s, k) => (
            <FromDrum key={s.id} board={board} row={row} k={k} />
          ))}
        </tbody>
      </table>
      <p className="text-[0.78rem] text-soft">
        * the sound takes a longer way than the tape: round a shell, through the drum, by a door or
        round a corner, or from the edge of a cymbal. dB after gain, against the mic's own job.
      </p>
    </>
  );
}

function FromDrum({ board, row, k }: { board: Board; row: number; k: number }) {
  const ruler: Ruler = useMe();
  const [tape, path] = [board.tape_m[row]?.[k] ?? 0, board.path_m[row]?.[k] ?? 0];
  const differs = Math.abs(tape - path) > 0.01;
  return (
    <tr>
      <th scope="row" className="text-left font-normal">
        {board.sources[k]?.name}
      </th>
      <td className="num">
        <Told words={differs ? `by air ${lengthWithUnit(path, ruler)}` : ""}>
          {lengthText(tape, ruler)}
          {differs ? "*" : ""}
        </Told>
      </td>
      <td className="num">{msText(board.arrival_s[row]?.[k] ?? 0)}</td>
      <td className="num">{signedText(board.after_gain_db[row]?.[k] ?? 0, 1, "")}</td>
      <td className="num">{SIGN[board.sign[row]?.[k] ?? 0]}</td>
    </tr>
  );
}
