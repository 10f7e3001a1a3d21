/** Any other reading somebody has: two ends and a length. */
import { type FormEvent, useState } from "react";
import type { Layout } from "../../../api/types";
import { partsOf } from "../../../core/kitParts";
import { howToType, parseLength, type Ruler, unitMark } from "../../../core/units";
import { Pick } from "../../../parts/fields/Pick";
import { useMe } from "../../../parts/me";
import { useReadTape } from "./useTape";

/** The two ends and the length as they are being chosen, and taking them. */
function useOther(parts: ReturnType<typeof partsOf>) {
  const readTape = useReadTape();
  const ruler: Ruler = useMe();
  const [ends, setEnds] = useState({ a: parts[0]?.id ?? "", b: "" });
  const [length, setLength] = useState("");
  const [bad, setBad] = useState("");
  const submit = async (e: FormEvent) => {
    e.preventDefault();
    const metres = parseLength(length, ruler);
    setBad(metres === null ? howToType(ruler) : ends.a === ends.b ? DIFFERENT : "");
    if (metres === null || ends.a === ends.b) return;
    if (await readTape(ends.a, ends.b || null, metres)) setLength("");
  };
  return { ends, setEnds, length, setLength, bad, submit, ruler };
}

const DIFFERENT = "Choose two different ends";

export function OtherReading({ doc }: { doc: Layout }) {
  const parts = partsOf(doc);
  const names = { "": "the floor", ...Object.fromEntries(parts.map((p) => [p.id, p.name])) };
  const ids = parts.map((p) => p.id);
  const { ends, setEnds, length, setLength, bad, submit, ruler } = useOther(parts);
  return (
    <form
      onSubmit={(e) => void submit(e)}
      aria-label="Another reading"
      className="flex flex-wrap items-center gap-2 border-t border-hair pt-2 text-[0.86rem]"
    >
      <span className="text-soft">Or from</span>
      <Pick
        hideLabel
        label="From"
        value={ends.a}
        options={ids}
        names={names}
        onTake={(a) => setEnds({ ...ends, a })}
      />
      <span className="text-soft">to</span>
      <Pick
        hideLabel
        label="To"
        value={ends.b}
        options={["", ...ids]}
        names={names}
        onTake={(b) => setEnds({ ...ends, b })}
      />
      <input
        className="field num w-24"
        aria-label={`Length${unitMark(ruler)}`}
        required
        value={length}
        onChange={(e) => setLength(e.target.value)}
      />
      <button type="submit" className="btn px-2 py-1">
        Take
      </button>
      {bad && (
        <span role="alert" className="text-hollow">
          {bad}
        </span>
      )}
    </form>
  );
}
