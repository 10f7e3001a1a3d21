/** What the server would not take, why, and what can be done with it; nothing of it is lost. */
import { saveFile } from "../core/saveFile";
import { useEditor, useEditorPart } from "./editing";

export function NotSaved() {
  const editor = useEditor();
  const refusal = useEditorPart((s) => s.refusal);
  const trouble = useEditorPart((s) => s.trouble || s.puzzled);
  if (!refusal && !trouble) return null;
  return (
    <div
      role="alert"
      className="flex flex-wrap items-center gap-3 bg-hollow px-4 py-1.5 text-[0.9rem] text-(--on)"
    >
      <p className="min-w-0 flex-1">
        {refusal ? `Not saved (${refusal.what}): ${refusal.words}` : trouble}
      </p>
      {refusal && (
        <>
          <Choice words="Try again" onTake={() => editor.again()} />
          <Choice
            words="Download it"
            onTake={() =>
              saveFile(`${refusal.doc.name}.layout.json`, JSON.stringify(refusal.doc, null, 2))
            }
          />
          <Choice words="Let it go" onTake={() => editor.letGo()} />
        </>
      )}
    </div>
  );
}

function Choice({ words, onTake }: { words: string; onTake: () => void }) {
  return (
    <button type="button" className="font-semibold underline" onClick={onTake}>
      {words}
    </button>
  );
}
