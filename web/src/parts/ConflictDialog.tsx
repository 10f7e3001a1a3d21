/** Somebody saved first: what differs, and three ways on, none of which loses anything. */
import { useState } from "react";
import { useNavigate } from "react-router";
import { api, must } from "../api/client";
import type { Conflict } from "../api/types";
import { changeLines } from "../core/changeWords";
import type { Ruler } from "../core/units";
import { Ask } from "./Ask";
import { useEditor } from "./editing";
import { useMe } from "./me";
import { useToast } from "./toast";

/** Keep both: what is here as a copy, what is there under its own name. */
function useKeepBoth() {
  const editor = useEditor();
  const say = useToast();
  const go = useNavigate();
  const [trouble, setTrouble] = useState("");
  const both = async () => {
    const { still, out } = editor.snapshot();
    const name = `${still.name.slice(0, 60)} (mine)`;
    try {
      const copy = await must(
        api.POST("/api/layouts/{pk}/copy", {
          params: { path: { pk: out.id } },
          body: { name, doc: still },
        }),
      );
      editor.resolve("theirs");
      const run = () => void go(`/layouts/${copy.id}/place`);
      say(`Yours is kept as ${name}`, { label: "Open it", run });
    } catch (error) {
      setTrouble((error as Error).message);
    }
  };
  return { both, trouble };
}

export function ConflictDialog({ conflict }: { conflict: Conflict }) {
  const editor = useEditor();
  const ruler: Ruler = useMe();
  const { both, trouble } = useKeepBoth();
  return (
    <Ask
      open
      wide
      closable={false}
      onClose={() => undefined}
      title="This layout was changed elsewhere"
      about={`${conflict.current.saved_by} saved it while you worked. Neither state is lost.`}
    >
      <h3 className="font-semibold">Yours against theirs</h3>
      <ul className="my-2 max-h-60 space-y-1 overflow-y-auto" aria-label="Differences">
        {changeLines(conflict.changes, ruler).map((words) => (
          <li key={words}>{words}</li>
        ))}
        {conflict.changes.length === 0 && <li className="text-soft">Both say the same.</li>}
      </ul>
      {trouble && (
        <p role="alert" className="text-hollow">
          {trouble}
        </p>
      )}
      <div className="mt-4 flex flex-wrap gap-2">
        <button type="button" className="btn-main" onClick={() => void both()}>
          Keep both: mine as a copy
        </button>
        <button type="button" className="btn" onClick={() => editor.resolve("mine")}>
          Put mine on top
        </button>
        <button type="button" className="btn" onClick={() => editor.resolve("theirs")}>
          Take theirs
        </button>
      </div>
      <p className="mt-2 text-[0.85rem] text-soft">With mine on top, undo leads back to theirs.</p>
    </Ask>
  );
}
