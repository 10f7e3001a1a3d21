/** The take that a line is about, among those of the session. */
import { useEditorPart } from "../../parts/editing";
import { Pick } from "../../parts/fields/Pick";
import { takeName, useSessionTakes } from "../../parts/takes";

interface Props {
  value: number | null;
  onTake: (take: number | null) => void;
}

const NONE = "none";

export function HeardIn({ value, onTake }: Props) {
  const layout = useEditorPart((s) => s.out.id);
  const takes = useSessionTakes().data ?? [];
  if (!takes.length) return null;
  const names = takes.map((t) => [String(t.id), takeName(t, layout)]);
  // One that was deleted meanwhile is none.
  const known = takes.some((t) => t.id === value);
  return (
    <Pick
      label="Heard in the take"
      value={known ? String(value) : NONE}
      options={[NONE, ...takes.map((t) => String(t.id))]}
      names={{ [NONE]: "none, by ear in the room", ...Object.fromEntries(names) }}
      onTake={(v) => onTake(v === NONE ? null : Number(v))}
    />
  );
}
