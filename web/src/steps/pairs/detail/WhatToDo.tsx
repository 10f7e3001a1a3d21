/** What to do about a pair: move it, hear it, leave it on purpose, or one of the remedies. */
import type { UseQueryResult } from "@tanstack/react-query";
import { useNavigate } from "react-router";
import type { Focus, PairDepth, PairRow } from "../../../api/types";
import { sourceName } from "../../../core/words";
import { useEditor, useEditorPart, useLit } from "../../../parts/editing";
import { Pick } from "../../../parts/fields/Pick";
import { useWorklist } from "../../../parts/worklist";
import { HearIt } from "../hear/HearIt";
import { Remedies } from "../Remedies";
import { lineFor } from "../todo/words";
import type { OnTrial } from "../useTrial";
import { Leaving } from "./Leaving";

interface Props extends OnTrial {
  focus: Focus;
  row: PairRow;
  depth: UseQueryResult<PairDepth>;
}

export function WhatToDo({ focus, row, depth, ...trial }: Props) {
  const doc = useEditorPart((s) => s.still);
  const deep = depth.data;
  return (
    <>
      <div className="flex flex-wrap items-center gap-2">
        <h3 className="text-[1rem]">What to do</h3>
        {deep && <School value={deep.school} />}
      </div>
      <div className="flex flex-wrap gap-2">
        <MoveIt focus={focus} />
        <HearIt row={row} drum={sourceName(doc, row.source)} />
        <Leaving row={row} />
      </div>
      <OnTheList focus={focus} otherwise={deep?.words ?? ""} />
      {depth.error && <p role="alert">{depth.error.message}</p>}
      {deep ? (
        <Remedies depth={deep} {...trial} />
      ) : (
        !depth.error && <p className="text-[0.85rem] text-soft">Trying every remedy…</p>
      )}
    </>
  );
}

/** The line of the list that makes this pair better; where there is none, what the remedies say. */
function OnTheList({ focus, otherwise }: { focus: Focus; otherwise: string }) {
  const lines = useWorklist().data?.lines ?? [];
  const at = lineFor(lines, focus.a, focus.b);
  const line = lines[at];
  if (!line)
    return (
      <p className="text-[0.85rem]" data-remedy-words>
        {otherwise}
      </p>
    );
  return (
    <p className="text-[0.85rem] font-semibold" data-on-the-list={at + 1}>
      To do, line {at + 1}: {line.words}
    </p>
  );
}

function MoveIt({ focus }: { focus: Focus }) {
  const editor = useEditor();
  const lit = useLit();
  const go = useNavigate();
  return (
    <button
      type="button"
      className="btn px-2.5 py-1 text-[0.84rem]"
      onClick={() => {
        lit.select(focus.b);
        editor.open({ anchor: focus.a, mover: focus.b, source: focus.source });
        go("../place");
      }}
    >
      Move {focus.b}
    </button>
  );
}

type Timing = PairDepth["school"];

/** Which of two schools the layout follows: it breaks ties between remedies. */
function School({ value }: { value: Timing }) {
  const editor = useEditor();
  return (
    <div className="flex items-center gap-1.5 text-[0.8rem] text-soft">
      <span aria-hidden="true">School</span>
      <Pick
        label="School"
        hideLabel
        className="py-0 text-[0.8rem]"
        value={value}
        options={["placed", "aligned"]}
        names={{ placed: "placed until it is in phase", aligned: "aligned after recording" }}
        onTake={(v) =>
          editor.commit(
            { ...editor.snapshot().still, timing: v as Timing },
            `Chose the school: ${v}`,
          )
        }
      />
    </div>
  );
}
