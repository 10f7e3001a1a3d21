/** Turn the null to a neighbour, and say how much of it that takes out. */
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { api, exactly } from "../../../api/client";
import type { Mic, NullOut } from "../../../api/types";
import { partsOf } from "../../../core/kitParts";
import { sourceName, the } from "../../../core/words";
import { useEditor, useEditorPart } from "../../../parts/editing";
import { Pick } from "../../../parts/fields/Pick";
import { Slide } from "../../../parts/fields/Slide";
import { useChangeMic } from "../../../parts/hands";

function useTurn(mic: Mic, from: string, off: number) {
  const editor = useEditor();
  const change = useChangeMic();
  return useMutation({
    mutationFn: () =>
      exactly<NullOut>(
        api.POST("/api/null-aim", {
          body: {
            layout: editor.snapshot().still,
            mic: mic.id,
            neighbour: from || null,
            off_deg: off,
          },
        }),
      ),
    onSuccess: ({ aim, neighbour }) => {
      const loud = the(sourceName(editor.snapshot().still, neighbour));
      change(mic.id, { aim }, { why: `Null of ${mic.id} toward ${loud}` });
    },
  });
}

export function NullToward({ mic }: { mic: Mic }) {
  const still = useEditorPart((s) => s.still);
  const [from, setFrom] = useState("");
  const [off, setOff] = useState(30);
  const turn = useTurn(mic, from, off);
  const others = partsOf(still).filter((p) => p.id !== mic.job);
  return (
    <div className="space-y-1.5">
      <div className="grid grid-cols-[minmax(0,1fr)_auto] items-end gap-2">
        <Pick
          label="Null toward"
          value={from}
          options={["", ...others.map((p) => p.id)]}
          names={{ "": "the loudest", ...Object.fromEntries(others.map((p) => [p.id, p.name])) }}
          onTake={setFrom}
        />
        <button type="button" className="btn" onClick={() => turn.mutate()}>
          Turn it
        </button>
      </div>
      <div className="flex items-center gap-2 text-[0.8rem] text-soft">
        <span className="whitespace-nowrap">at most {off}° off its drum</span>
        <Slide
          label="How far the front may leave the drum, degrees"
          low={0}
          high={60}
          step={5}
          value={off}
          onShow={setOff}
          onTake={setOff}
        />
      </div>
      {turn.data && (
        <p className="text-[0.83rem]" data-null>
          {turn.data.words}
        </p>
      )}
      {turn.error && (
        <p role="alert" className="text-[0.83rem] text-hollow">
          {turn.error.message}
        </p>
      )}
    </div>
  );
}
