/** Lines of the log, one of which is open: what has changed since, and the ways back. */
import { useState } from "react";
import type { Tried } from "../../api/types";
import { changeLines } from "../../core/changeWords";
import { when } from "../../core/moments";
import { HEARD_WORD } from "../../core/triedLines";
import type { Ruler } from "../../core/units";
import { useMe } from "../../parts/me";
import { Opened } from "./Opened";

interface Props {
  lines: readonly Tried[];
  /** What one of them can be held against. */
  every: readonly Tried[];
  /** Of other sessions: named, and put up as a layout of this one. */
  elsewhere?: boolean;
}

export function Lines({ lines, every, elsewhere = false }: Props) {
  const [open, setOpen] = useState<number | null>(null);
  return (
    <ol className="space-y-2">
      {lines.map((line) => (
        <li
          key={line.id}
          data-line={line.id}
          className={`rounded-card border bg-card p-3 ${open === line.id ? "border-ink" : "border-hair"}`}
        >
          <button
            type="button"
            aria-expanded={open === line.id}
            className="w-full text-left"
            onClick={() => setOpen((was) => (was === line.id ? null : line.id))}
          >
            <Says line={line} elsewhere={elsewhere} />
          </button>
          {open === line.id && <Opened line={line} every={every} elsewhere={elsewhere} />}
        </li>
      ))}
    </ol>
  );
}

/** The line itself: what was heard first, what was done for it below. */
function Says({ line, elsewhere }: { line: Tried; elsewhere: boolean }) {
  return (
    <>
      <span className="flex flex-wrap items-baseline gap-x-3">
        <Heard verdict={line.verdict} />
        {line.song && <b>{line.song}</b>}
        <span className="text-[0.85rem] text-soft">
          {elsewhere ? `${line.session}, ${line.layout}` : line.layout}
          {line.stood && ", as it stood"}
          {line.take && `, heard in ${line.take.name}`}
        </span>
        <span className="num ml-auto text-[0.85rem] whitespace-nowrap text-soft">
          {when(line.at)} {line.by}
        </span>
      </span>
      {line.words && <span className="mt-1 block break-words">{line.words}</span>}
      <Changed line={line} />
    </>
  );
}

const MOST = 4;

/** What had changed since the line before it. */
function Changed({ line }: { line: Tried }) {
  const ruler: Ruler = useMe();
  const all = changeLines(line.since, ruler);
  const more = all.length - MOST;
  return (
    <span className="mt-1 block text-[0.85rem] text-soft">
      {all.slice(0, MOST).map((words) => (
        <span key={words} className="block">
          {words}
        </span>
      ))}
      {more > 0 && <span className="block">and {more} more</span>}
    </span>
  );
}

const LOOK: Record<Tried["verdict"], string> = {
  works: "border-ring bg-ring text-panel",
  maybe: "border-soft text-ink",
  no: "border-dashed border-soft text-soft line-through",
};

function Heard({ verdict }: { verdict: Tried["verdict"] }) {
  return (
    <span className={`rounded-md border px-1.5 text-[0.8rem] font-semibold ${LOOK[verdict]}`}>
      {HEARD_WORD[verdict]}
    </span>
  );
}
