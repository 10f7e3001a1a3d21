/** An open line: what is to be changed to have it again, and the ways back to it. */
import { useState } from "react";
import { Link } from "react-router";
import { api, must } from "../../api/client";
import type { Tried } from "../../api/types";
import { changeLines } from "../../core/changeWords";
import { when } from "../../core/moments";
import { HEARD_WORD, heardBefore } from "../../core/triedLines";
import type { Ruler } from "../../core/units";
import { useAsShown } from "../../parts/atkit/State";
import { useEditorPart } from "../../parts/editing";
import { Pick } from "../../parts/fields/Pick";
import { useMe } from "../../parts/me";
import { listenTo } from "../../parts/takes";
import { useToast } from "../../parts/toast";
import { useLayouts } from "../../parts/top/useLayouts";
import { Otherwise } from "./Otherwise";
import { useGoBack, useStrike, useWayTo } from "./useTried";

interface Props {
  line: Tried;
  every: readonly Tried[];
  elsewhere: boolean;
}

export function Opened({ line, every, elsewhere }: Props) {
  const [otherwise, setOtherwise] = useState(false);
  return (
    <div className="mt-3 space-y-3 border-t border-hair pt-3">
      {otherwise ? (
        <Otherwise line={line} onEnd={() => setOtherwise(false)} />
      ) : (
        <>
          <Hear line={line} every={every} />
          {/* What is to be changed arrives later and below, so that no button moves from under a hand. */}
          <Ways line={line} elsewhere={elsewhere} onOtherwise={() => setOtherwise(true)} />
          <WayTo line={line} every={every} />
        </>
      )}
    </div>
  );
}

/** The take of a line, to be heard again, and against the one heard before it. */
function Hear({ line, every }: Omit<Props, "elsewhere">) {
  if (!line.take) return null;
  const before = heardBefore(line, every)?.take;
  return (
    <p className="flex flex-wrap gap-2">
      <Link className="btn" to={listenTo(line.take)}>
        Listen to {line.take.name}
      </Link>
      {before && (
        <Link className="btn" to={listenTo(line.take, before)}>
          Hear it against {before.name}
        </Link>
      )}
    </p>
  );
}

const NOW = "now";

function WayTo({ line, every }: Omit<Props, "elsewhere">) {
  const [other, setOther] = useState(NOW);
  const ruler: Ruler = useMe();
  const found = useWayTo(line.id, other === NOW ? null : Number(other));
  const others = every.filter((l) => l.id !== line.id);
  const names = Object.fromEntries(others.map((l) => [String(l.id), named(l)]));
  return (
    <>
      <Pick
        label="To have it as in this line, coming from"
        value={other}
        options={[NOW, ...others.map((l) => String(l.id))]}
        names={{ [NOW]: "the layout as it is now", ...names }}
        onTake={setOther}
      />
      {found.error && !found.data && <p role="alert">{found.error.message}</p>}
      {found.data && (
        <ul
          aria-label="What is to be changed"
          className="max-h-60 list-disc space-y-0.5 overflow-y-auto pl-5 text-[0.9rem]"
        >
          {changeLines(found.data, ruler).map((words) => (
            <li key={words}>{words}</li>
          ))}
          {!found.data.length && (
            <li className="list-none text-soft">Nothing: they are the same.</li>
          )}
        </ul>
      )}
    </>
  );
}

const named = (l: Tried) =>
  [when(l.at), l.song, HEARD_WORD[l.verdict], l.words].filter(Boolean).join(", ").slice(0, 70);

function Ways(props: Omit<Props, "every"> & { onOtherwise: () => void }) {
  const { line, elsewhere, onOtherwise } = props;
  const back = useGoBack();
  const strike = useStrike();
  const put = usePutUp(line);
  // What is gone back to is a plan: not while it is shown how everything stands.
  const stands = useAsShown() !== null;
  return (
    <p className="flex flex-wrap gap-2">
      {!elsewhere && !stands && (
        <button type="button" className="btn" onClick={() => void back(line)}>
          Go back to it
        </button>
      )}
      <button type="button" className="btn" onClick={() => void put()}>
        Make a layout of it
      </button>
      {!elsewhere && (
        <span className="ml-auto flex gap-2">
          <button type="button" className="btn" onClick={onOtherwise}>
            Say it otherwise
          </button>
          <button type="button" className="btn" onClick={() => strike(line.id)}>
            Strike out
          </button>
        </span>
      )}
    </p>
  );
}

/** A line's layout beside the others of this session, and open. */
function usePutUp(line: Tried) {
  const out = useEditorPart((s) => s.out);
  const { opened } = useLayouts(out);
  const say = useToast();
  return async () => {
    const path = { pk: out.session_id, line: line.id };
    const name = (line.song || line.layout).slice(0, 80);
    try {
      const made = await must(
        api.POST("/api/sessions/{pk}/tried/{line}/layout", { params: { path }, body: { name } }),
      );
      say(`${name} is a layout of its own`);
      opened(made.id);
    } catch (error) {
      say((error as Error).message);
    }
  };
}
