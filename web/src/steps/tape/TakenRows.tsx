/** The readings as they were taken, each against where everything stands. */
import type { AtKit } from "../../api/types";
import { partOf } from "../../core/kitParts";
import { lengthText, type Ruler, unitMark } from "../../core/units";
import { spoken } from "../../core/words";
import type { AtKitLog } from "../../parts/atkit/log";
import { useEditorPart } from "../../parts/editing";
import { useMe } from "../../parts/me";

const STATE = {
  fits: ["fits", "text-ring"],
  misfit: ["does not fit, left out", "text-hollow"],
  doubtful: ["may be the wrong one", "text-latetext"],
  unsure: ["touched since", "text-latetext"],
} as const;

interface Props {
  standing: AtKit["standing"];
  kit: AtKitLog;
}

export function TakenRows({ standing, kit }: Props) {
  const ruler: Ruler = useMe();
  const by = new Map(kit.lines.map((l) => [l.key, l.by]));
  const doc = useEditorPart((s) => s.still);
  const name = (to: string | null) =>
    to === null ? "the floor" : spoken(partOf(doc, to)?.name ?? to);
  if (!standing.readings.length) return null;
  return (
    <table className="w-full text-left text-[0.86rem]">
      <caption className="pb-1 text-left font-semibold">Readings{unitMark(ruler)}</caption>
      <tbody>
        {[...standing.readings].reverse().map((r) => {
          const [words, colour] = STATE[r.state];
          return (
            <tr key={r.key} data-taken={`${r.mic} ${r.to ?? "ground"}`} data-state={r.state}>
              <th scope="row" className="font-normal">
                {r.mic} – {name(r.to)}
              </th>
              <td className="num font-semibold">
                {r.like ? `as ${r.like}` : lengthText(r.metres, ruler)}
              </td>
              <td className={colour}>{words}</td>
              <td className="text-soft">
                {kit.waiting.has(r.key) ? "here" : (by.get(r.key) ?? "")}
              </td>
              <td className="text-right">
                <button
                  type="button"
                  className="underline pointer-coarse:min-h-10"
                  aria-label={`Forget ${r.mic} to ${name(r.to)}`}
                  onClick={() => kit.strike(r.key)}
                >
                  Forget
                </button>
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
