/** The fundamental as hertz or a note; empty goes back to the estimate from size. */
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { api, must } from "../../../api/client";
import type { Drum } from "../../../api/types";
import { hzText } from "../../../core/units";
import { useEditorPart } from "../../../parts/editing";
import { useToast } from "../../../parts/toast";

interface Props {
  drum: Drum;
  onTake: (hz: number | null) => void;
}

/** What is typed, turned into hertz by the core when it is let go of. */
function useTyped({ drum, onTake }: Props) {
  const say = useToast();
  const [text, setText] = useState<string | null>(null);
  const read = useMutation({
    mutationFn: (typed: string) => must(api.POST("/api/kit/pitch", { body: { text: typed } })),
    onSuccess: ({ hz }) => {
      setText(null);
      onTake(hz);
    },
    onError: (e) => say(e.message),
  });
  const take = () => {
    if (text === null) return;
    if (text.trim() !== "") return read.mutate(text);
    setText(null);
    if ((drum.fundamental_hz ?? null) !== null) onTake(null);
  };
  return { text, setText, take };
}

export function Pitch(props: Props) {
  const { drum } = props;
  const { text, setText, take } = useTyped(props);
  const board = useEditorPart((s) => s.board);
  const band = board?.sources.find((s) => s.id === drum.id);
  return (
    <label className="block">
      <span className="text-[0.8rem] text-soft">Tuned to, Hz or a note</span>
      <input
        className="field num w-full font-semibold"
        value={text ?? drum.fundamental_hz?.toFixed(1) ?? ""}
        placeholder={band ? `estimate ${band.fundamental_hz.toFixed(0)}` : ""}
        onChange={(e) => setText(e.target.value)}
        onBlur={take}
        onKeyDown={(e) => e.key === "Enter" && take()}
      />
      {band && (
        <span className="text-[0.78rem] text-soft">
          Body is judged from {hzText(band.body_low_hz)} to {hzText(band.body_high_hz)}.
        </span>
      )}
    </label>
  );
}
