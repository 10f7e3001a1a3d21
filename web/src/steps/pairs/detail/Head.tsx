/** Which two mics, on which drum, with which verdict. */
import type { Focus, Mic, PairRow } from "../../../api/types";
import { sourceName } from "../../../core/words";
import { useEditor, useEditorPart } from "../../../parts/editing";
import { Hint } from "../../../parts/fields/Hint";
import { Pick } from "../../../parts/fields/Pick";
import { VerdictWord } from "../../../parts/Mark";
import { MicTag } from "../../../parts/MicTag";
import type { OnTrial } from "../useTrial";

interface Props {
  focus: Focus;
  a: Mic;
  b: Mic;
  row: PairRow;
  onTry: OnTrial["onTry"];
}

const SMALL = "btn px-2 py-0.5 text-[0.78rem]";

export function Head({ focus, a, b, row, onTry }: Props) {
  const doc = useEditorPart((s) => s.still);
  return (
    <div className="flex flex-wrap items-center gap-2">
      <MicTag mic={a} layout={doc} lit />
      <span className="text-soft">with</span>
      <MicTag mic={b} layout={doc} lit />
      <DrumOfPair focus={focus} onTry={onTry} />
      <span data-pair-verdict={row.verdict}>
        <VerdictWord verdict={row.verdict} />
      </span>
      <RoundOrAway focus={focus} onTry={onTry} />
    </div>
  );
}

function DrumOfPair({ focus, onTry }: Opened) {
  const editor = useEditor();
  const doc = useEditorPart((s) => s.still);
  return (
    <Pick
      label="Drum of this pair"
      hideLabel
      className="py-0.5"
      value={focus.source}
      options={focus.rows.map((r) => r.source)}
      names={Object.fromEntries(
        focus.rows.map((r) => [r.source, `${sourceName(doc, r.source)}: ${r.verdict}`]),
      )}
      onTake={(source) => {
        onTry(null);
        editor.open({ anchor: focus.a, mover: focus.b, source });
      }}
    />
  );
}

interface Opened {
  focus: Focus;
  onTry: OnTrial["onTry"];
}

function RoundOrAway({ focus, onTry }: Opened) {
  const editor = useEditor();
  return (
    <>
      <Hint words="The second is the one that rather moves">
        <button
          type="button"
          className={SMALL}
          onClick={() => editor.open({ anchor: focus.b, mover: focus.a, source: focus.source })}
        >
          Other way round
        </button>
      </Hint>
      <Hint words="More room for the grid">
        <button
          type="button"
          className={SMALL}
          onClick={() => {
            onTry(null);
            editor.open(null);
          }}
        >
          Put away
        </button>
      </Hint>
    </>
  );
}
