/** What stands becomes the plan, or goes back to it: one action each, each with its undo. */
import type { AtKit } from "../../api/types";
import { touchedEntry } from "../../core/kitlog";
import { plain } from "../../core/shown";
import type { AtKitLog } from "../../parts/atkit/log";
import { useEditor } from "../../parts/editing";
import { useToast } from "../../parts/toast";

interface Props {
  answer: AtKit;
  /** Nothing was changed since: only then may it become the plan. */
  current: boolean;
  kit: AtKitLog;
}

export function ToAndFro({ answer, current, kit }: Props) {
  const editor = useEditor();
  const say = useToast();
  const { mics, layout } = answer.standing;
  if (!mics.some((m) => m.state !== "planned")) return null;
  const off = mics.filter((m) => m.back.text).map((m) => m.mic);
  const putBack = () => {
    const keys = off.map((mic) => kit.write(touchedEntry(mic)));
    say(`Put back as told: ${off.join(", ")}. Each is sure again once it is read.`, {
      label: "Undo",
      run: () => keys.forEach(kit.strike),
    });
  };
  return (
    <div className="space-y-1.5">
      <div className="flex flex-wrap gap-2">
        <button
          type="button"
          className="btn"
          disabled={!current}
          onClick={() => editor.commit(plain(layout), "Made what stands the plan")}
        >
          Make it the plan
        </button>
        <button type="button" className="btn" disabled={!current || !off.length} onClick={putBack}>
          Put it back to the plan
        </button>
      </div>
      <p className="text-[0.85rem] text-soft">
        {off.length
          ? `Off the plan: ${off.join(", ")}. Put back, each is told its way and asked for again.`
          : "Nothing that is known stands off the plan."}
      </p>
    </div>
  );
}
