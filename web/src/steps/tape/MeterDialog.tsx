/** Letting a distance meter send readings for this layout; the simulated one is a command. */
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { api, must } from "../../api/client";
import { Ask } from "../../parts/Ask";
import { useEditorPart } from "../../parts/editing";

const ABOUT = "What it reads stands here as if you had typed it; you keep it, or read again.";

export function MeterDialog() {
  const [open, setOpen] = useState(false);
  return (
    <>
      <button
        type="button"
        className="text-[0.88rem] font-semibold underline pointer-coarse:min-h-10"
        onClick={() => setOpen(true)}
      >
        Use a distance meter
      </button>
      <Ask open={open} onClose={() => setOpen(false)} title="Distance meter" about={ABOUT}>
        <LetIn />
      </Ask>
    </>
  );
}

function LetIn() {
  const layout = useEditorPart((s) => s.out.id);
  const call = { params: { path: { pk: layout } } };
  const make = useMutation({ mutationFn: () => must(api.POST("/api/layouts/{pk}/meter", call)) });
  const end = useMutation({
    mutationFn: () => must(api.DELETE("/api/layouts/{pk}/meter", call)),
    onSuccess: () => make.reset(),
  });
  const error = make.error ?? end.error;
  return (
    <div className="space-y-3 text-[0.92rem]">
      {error && (
        <p role="alert" className="font-semibold text-hollow">
          {error.message}
        </p>
      )}
      {make.data ? (
        <Made word={make.data.word} address={make.data.address} />
      ) : (
        <p>
          A meter is given a word with which it can send readings for this layout, and do nothing
          else. One that was let in before is let go.
        </p>
      )}
      <div className="flex gap-2">
        <button
          type="button"
          className="btn-main"
          disabled={make.isPending}
          onClick={() => make.mutate()}
        >
          {make.data ? "Another word" : "Let a meter in"}
        </button>
        <button type="button" className="btn" disabled={end.isPending} onClick={() => end.mutate()}>
          {end.isSuccess && !make.data ? "It is let go" : "Let it go"}
        </button>
      </div>
    </div>
  );
}

function Made({ word, address }: { word: string; address: string }) {
  return (
    <dl className="space-y-2">
      <dt className="text-soft">It sends to</dt>
      <dd className="num break-all">{address}</dd>
      <dt className="text-soft">with the word, told this once</dt>
      <dd className="num break-all" data-meter-word>
        {word}
      </dd>
      <dt className="text-soft">A simulated one, on the computer Ringside runs on</dt>
      <dd className="num break-all">./ringside meter {word}</dd>
    </dl>
  );
}
