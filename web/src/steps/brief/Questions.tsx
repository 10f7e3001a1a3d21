/** The questions, each with its answers side by side and what the chosen one changes. */
import type { Brief, BriefOut } from "../../api/types";
import { counted } from "../../core/words";
import { Segmented } from "../../parts/fields/Segmented";
import { Tick } from "../../parts/fields/Tick";
import { NumberField } from "../../parts/fields/typed";

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
          onTake={(v) =>
            onAnswer({ inputs: Math.round(v) }, `Brief: ${counted(Math.round(v), "input")}`)
          }
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
      <Tick
        className="items-center text-[0.88rem]"
        checked={brief.from_locker ?? true}
        onTake={(on) => onAnswer({ from_locker: on }, `Brief: ${on ? "mics at hand" : "any mics"}`)}
      >
        Only the mics and stands of the locker
      </Tick>
      {asked.map((q) => (
        <Question
          key={q.id}
          question={q}
          value={brief[q.id as keyof Brief] as string}
          onAnswer={onAnswer}
        />
      ))}
    </div>
  );
}

function Question(props: {
  question: Props["asked"][number];
  value: string;
  onAnswer: Props["onAnswer"];
}) {
  const { question, value, onAnswer } = props;
  const { id, label, answers } = question;
  const answerOf = (v: string) => answers.find((a) => a.value === v);
  return (
    <div data-question={id}>
      <p className="mb-1 text-[0.9rem] font-semibold">{label}</p>
      <Segmented
        small
        label={label}
        value={value}
        options={answers.map((a) => [a.value, a.label] as const)}
        onTake={(v) => {
          const said = answerOf(v)?.label ?? v;
          onAnswer({ [id]: v } as Partial<Brief>, `Brief: ${said.toLowerCase()}`.slice(0, 110));
        }}
      />
      <p className="mt-0.5 text-[0.82rem] text-soft">{answerOf(value)?.changes}</p>
    </div>
  );
}
