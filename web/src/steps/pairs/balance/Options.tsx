/** Options: tracks that stand in for each other, of which one is used, rarely two. */
import { useState } from "react";
import type { Layout } from "../../../api/types";
import { useEditorPart } from "../../../parts/editing";
import { Tick } from "../../../parts/fields/Tick";
import { useTake } from "../../../parts/hands";
import { useOptions } from "../data";

type OptionSet = NonNullable<Layout["options"]>[number];

export function Options() {
  const sets = useEditorPart((s) => s.still.options) ?? [];
  const rooms = useEditorPart((s) => s.board?.stand_ins) ?? [];
  const take = useTake();
  return (
    <>
      {sets.map((s) => (
        <OneSet key={s.id} set={s} sets={sets} />
      ))}
      {rooms.length > 1 && (
        <p className="flex flex-wrap items-center gap-2 text-[0.86rem]">
          {rooms.join(", ")} can stand in for each other.
          <button
            type="button"
            className="btn px-2 py-0.5 text-[0.8rem]"
            onClick={() => void take({ do: "room-options" })}
          >
            Make them options
          </button>
        </p>
      )}
    </>
  );
}

function OneSet({ set, sets }: { set: OptionSet; sets: OptionSet[] }) {
  const tracks = useEditorPart((s) => s.board?.tracks) ?? [];
  const take = useTake();
  const up = new Set(tracks.filter((t) => t.heard).map((t) => t.id));
  const used = set.options.filter((o) => o.channels.some((c) => up.has(c))).map((o) => o.name);
  const others = sets.filter((s) => s.id !== set.id);
  const [compared, compare] = useState(false);
  return (
    <fieldset className="flex flex-wrap items-center gap-x-3 gap-y-1 text-[0.86rem]">
      <legend className="sr-only">{set.name}</legend>
      <span className="font-semibold">{set.name}:</span>
      {set.options.map((o) => (
        <Tick
          key={o.name}
          checked={used.includes(o.name)}
          onTake={(on) => {
            const now = set.options.map((x) => x.name).filter((n) => used.includes(n));
            const next = on ? [...now, o.name] : now.filter((n) => n !== o.name);
            void take({ do: "choose", set: set.id, used: next });
          }}
        >
          {o.name}
        </Tick>
      ))}
      <button
        type="button"
        className="btn px-2 py-0.5 text-[0.8rem]"
        onClick={() => void take({ do: "options", options: others })}
      >
        No options any more
      </button>
      <button
        type="button"
        className="btn px-2 py-0.5 text-[0.8rem]"
        aria-expanded={compared}
        onClick={() => compare(!compared)}
      >
        Compare
      </button>
      {compared && <Ranked set={set} />}
    </fieldset>
  );
}

/** Each option up alone, the best first. */
function Ranked({ set }: { set: OptionSet }) {
  const take = useTake();
  const found = useOptions(set.id, true);
  if (found.error && !found.data) return <p role="alert">{found.error.message}</p>;
  if (!found.data) return <p className="w-full text-soft">Trying each alone…</p>;
  return (
    <ol className="w-full space-y-1" aria-label={`${set.name}, best first`}>
      {found.data.map((row) => (
        <li key={row.name} data-option-rank={row.name} className="flex items-start gap-2">
          <button
            type="button"
            className="btn shrink-0 px-2 py-0.5 text-[0.8rem]"
            aria-label={`Use ${row.name} alone`}
            onClick={() => void take({ do: "choose", set: set.id, used: [row.name] })}
          >
            Use
          </button>
          <span>{row.words}</span>
        </li>
      ))}
    </ol>
  );
}
