/** Mix two: for each part of the work, whose pieces to take. */
import { RadioGroup } from "radix-ui";
import type { Plan } from "../../api/types";
import { mixed, type PartName, type Picks, partsIn, piecesOf } from "../../core/mix";
import { micsInWords } from "../../core/words";
import { Radio } from "../../parts/fields/Radios";
import { useTechniques } from "../place/techniques/data";

interface Props {
  plans: Plan[];
  picks: Picks;
  onPick: (part: PartName, from: number) => void;
  onTake: () => void;
}

export function MixTable({ plans, picks, onPick, onTake }: Props) {
  const list = useTechniques().data;
  const name = (id: string) => list?.find((t) => t.id === id)?.name ?? id;
  const mics = mixed(plans, picks).reduce(
    (n, p) => n + (list?.find((t) => t.id === p.technique)?.mics ?? 1),
    0,
  );
  return (
    <section className="mt-5" aria-label="Mix">
      <h2 className="mb-1 text-lg">Mix them</h2>
      <div className="text-[0.85rem] narrow:overflow-x-auto narrow:*:min-w-[38rem]">
        <div className={`${ROW} text-soft`} style={columns(plans)}>
          <span>Part</span>
          {plans.map((p, i) => (
            <span key={p.title}>
              {i + 1} {p.title}
            </span>
          ))}
          <span>nobody's</span>
        </div>
        <div className="divide-y divide-hair border-y border-hair">
          {partsIn(plans).map((part) => (
            <OnePart
              key={part}
              {...{ part, plans, name }}
              from={picks[part] ?? 0}
              onPick={(from) => onPick(part, from)}
            />
          ))}
        </div>
      </div>
      <button type="button" className="btn mt-2" onClick={onTake}>
        Take the mix, {micsInWords(mics)}
      </button>
    </section>
  );
}

const ROW = "grid gap-x-2 py-1";
const columns = (plans: Plan[]) => ({
  gridTemplateColumns: `7.5rem repeat(${plans.length}, minmax(0,1fr)) 5rem`,
});

/** Whose pieces to take for one part of the work. */
function OnePart(props: {
  part: PartName;
  plans: Plan[];
  name: (technique: string) => string;
  from: number;
  onPick: (from: number) => void;
}) {
  const { part, plans, name, from, onPick } = props;
  const pieces = (plan: Plan) =>
    [...new Set(piecesOf(plan, part).map((p) => name(p.technique)))].join(", ") || "nothing";
  return (
    <RadioGroup.Root
      aria-label={part}
      value={String(from)}
      onValueChange={(v) => onPick(Number(v))}
      className={ROW}
      style={columns(plans)}
    >
      <strong className="font-semibold">{part}</strong>
      {[...plans.keys(), -1].map((i) => (
        // biome-ignore lint/a11y/noLabelWithoutControl: the button within is what the label labels
        <label key={i} className="flex cursor-pointer gap-1.5 pointer-coarse:min-h-10">
          <Radio value={String(i)} said={`${part} from ${i < 0 ? "nobody" : `layout ${i + 1}`}`} />
          <span className="min-w-0">{i < 0 ? "" : pieces(plans[i] as Plan)}</span>
        </label>
      ))}
    </RadioGroup.Root>
  );
}
