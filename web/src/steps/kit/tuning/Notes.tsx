/** Fundamentals and notes. */
import type { Tuning } from "../../../api/types";
import { signedText } from "../../../core/units";

interface Props {
  tuning: Tuning;
  onChoose: (id: string) => void;
}

export function Notes({ tuning, onChoose }: Props) {
  return (
    <table className="w-full text-[0.86rem]">
      <caption className="sr-only">Fundamentals and notes</caption>
      <thead className="text-left text-soft">
        <tr>
          {["Drum", "Hz", "Note", "Cents", ""].map((h) => (
            <th key={h} className="font-normal">
              {h}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {tuning.drums.map((d) => (
          <tr key={d.id}>
            <th scope="row" className="text-left font-normal">
              <button type="button" className="underline" onClick={() => onChoose(d.id)}>
                {d.name}
              </button>
            </th>
            <td className="num">{d.fundamental_hz.toFixed(1)}</td>
            <td className="num font-semibold" data-note={d.id}>
              {d.note}
            </td>
            <td className="num">{signedText(d.cents, 0)}</td>
            <td className="text-soft">{d.known ? "typed" : "estimated from size"}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
