/** Which two mics are open; the first stands, the second moves. */
import { ArrowLeftRight } from "lucide-react";
import { memo } from "react";
import { micOf } from "../../../core/edits";
import { useEditor, useEditorPart } from "../../../parts/editing";
import { Hint } from "../../../parts/fields/Hint";
import { Pick } from "../../../parts/fields/Pick";
import { MicTag } from "../../../parts/MicTag";

export const OpenPair = memo(function OpenPair(props: { anchor: string; mover?: string }) {
  const { anchor, mover } = props;
  const editor = useEditor();
  const doc = useEditorPart((s) => s.still);
  const one = micOf(doc, anchor);
  const two = mover ? micOf(doc, mover) : undefined;
  if (!one) return null;
  const others = doc.mics.map((m) => m.id).filter((id) => id !== anchor);
  const name = doc.stereo_pairs.find(
    (p) => mover && [p.left, p.right].includes(anchor) && [p.left, p.right].includes(mover),
  )?.name;
  return (
    <header>
      <div className="flex items-center gap-2">
        <MicTag mic={one} layout={doc} lit />
        <span className="text-soft">with</span>
        {two && <MicTag mic={two} layout={doc} lit />}
        <div className={`ml-auto ${mover ? "w-22" : "w-28"}`}>
          <Pick
            label="The other mic"
            hideLabel
            className="w-full py-0.5"
            value={mover ?? ""}
            placeholder="choose"
            options={others}
            onTake={(id) => editor.open({ anchor, mover: id, source: null })}
          />
        </div>
        {mover && <TurnRound anchor={anchor} mover={mover} />}
      </div>
      <p className="mt-1 text-[0.85rem] text-soft">
        {name ?? "two mics"}
        {two ? `; ${one.id} stands, ${two.id} moves` : ""}
      </p>
    </header>
  );
});

function TurnRound({ anchor, mover }: { anchor: string; mover: string }) {
  const editor = useEditor();
  const words = `Let ${anchor} move instead of ${mover}`;
  return (
    <Hint words={words}>
      <button
        type="button"
        className="btn px-1.5 py-1"
        aria-label={words}
        onClick={() => editor.open({ anchor: mover, mover: anchor, source: null })}
      >
        <ArrowLeftRight size={15} />
      </button>
    </Hint>
  );
}
