/** Leaving a pair on purpose: with a reason, what it stood at, who and when; flagged when it moves. */
import { type FormEvent, useState } from "react";
import type { Decision, PairRow } from "../../../api/types";
import { decisionOn } from "../../../core/edits";
import { Ask } from "../../../parts/Ask";
import { useEditorPart } from "../../../parts/editing";
import { useTake } from "../../../parts/hands";

export function Leaving({ row }: { row: PairRow }) {
  const decision = useEditorPart((s) => decisionOn(s.still, row));
  return decision ? <Left row={row} decision={decision} /> : <Leave row={row} />;
}

const named = ({ a, b, source }: PairRow) => ({ a, b, source });

function Left({ row, decision }: { row: PairRow; decision: Decision }) {
  const take = useTake();
  const flag = useEditorPart((s) =>
    s.board?.decisions.find(
      (f) => f.a === decision.a && f.b === decision.b && f.source === decision.source,
    ),
  );
  return (
    <div className="text-[0.85rem]">
      <p>
        Left on purpose: {decision.reason}{" "}
        <span className="text-soft">
          {decision.by} {decision.at?.slice(0, 10)}
        </span>
      </p>
      {flag?.stale && (
        <p className="font-semibold text-latetext" data-stale>
          {flag.words}{" "}
          <button
            type="button"
            className="text-snare underline"
            onClick={() => void take({ do: "decide", ...named(row), reason: decision.reason })}
          >
            It still holds
          </button>
        </p>
      )}
      <button
        type="button"
        className="font-semibold text-snare underline"
        onClick={() => void take({ do: "undecide", ...named(row) })}
      >
        Take it back
      </button>
    </div>
  );
}

function Leave({ row }: { row: PairRow }) {
  const take = useTake();
  const [leaving, setLeaving] = useState(false);
  const submit = (e: FormEvent<HTMLFormElement>) => {
    e.preventDefault();
    const reason = String(new FormData(e.currentTarget).get("reason")).trim();
    setLeaving(false);
    if (reason) void take({ do: "decide", ...named(row), reason });
  };
  return (
    <>
      <button
        type="button"
        className="btn px-2.5 py-1 text-[0.84rem]"
        onClick={() => setLeaving(true)}
      >
        Leave, and say why
      </button>
      <Ask
        open={leaving}
        onClose={() => setLeaving(false)}
        title={`Leave ${row.a} and ${row.b} as they are`}
        about="Say why, so that nobody mends it tomorrow."
      >
        <form onSubmit={submit} className="space-y-3">
          <label className="block">
            <span className="text-soft">Reason</span>
            <textarea name="reason" required maxLength={400} rows={3} className="field w-full" />
          </label>
          <button type="submit" className="btn-main w-full">
            Leave it on purpose
          </button>
        </form>
      </Ask>
    </>
  );
}
