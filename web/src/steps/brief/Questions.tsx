/** The questions, each with its answers side by side and what the chosen one changes. */
import type { Brief, BriefOut } from "../../api/types";
import { NumberField } from "../../parts/fields";
import { Segmented } from "../../parts/Segmented";

interface Props {
  asked: BriefOut["questions"];
  brief: Brief;
  onAnswer: (change: Partial<Brief>, what: string) => void;
}

export function Questions({ asked, brief, onAnswer }: Props) {
  return (
    <div className="space-y-3">
      <div className="grid grid-cols-2 gap-3">
        <NumberField
          label="Inputs"
          value={brief.inputs ?? 12}
          digits={0}
          low={1}
          high={32}
          onTake={(v) => onAnswer({ inputs: Math.round(v) }, `Brief: ${Math.round(v)} inputs`)}
        />
        <NumberField
          label="Minutes to set up"
          value={brief.minutes ?? 120}
          digits={0}
          low={10}
          high={600}
          onTake={(v) => onAnswer({ minutes: Math.round(v) }, `Brief: ${Math.round(v)} minutes`)}
        />
      </div>
      <label className="flex items-center gap-2 text-[0.88rem]">
        <input
          type="checkbox"
          checked={brief.from_locker ?? true}
          onChange={(e) =>
            onAnswer(
              { from_locker: e.target.checked },
              `Brief: ${e.target.checked ? "mics at hand" : "any mics"}`,
            )
          }
        />
        Only the mics and stands of the locker
      </label>
      {asked.map((q) => {
        const value = brief[q.id as keyof Brief] as string;
        const chosen = q.answers.find((a) => a.value === value);
        return (
          <div key={q.id} data-question={q.id}>
            <p className="mb-1 text-[0.9rem] font-semibold">{q.label}</p>
            <Segmented
              small
              label={q.label}
              value={value}
              options={q.answers.map((a) => [a.value, a.label] as const)}
              onTake={(v) => {
                const label = q.answers.find((a) => a.value === v)?.label ?? v;
                onAnswer(
                  { [q.id]: v } as Partial<Brief>,
                  `Brief: ${label.toLowerCase()}`.slice(0, 110),
                );
              }}
            />
            <p className="mt-0.5 text-[0.82rem] text-soft">{chosen?.changes}</p>
          </div>
        );
      })}
    </div>
  );
}
