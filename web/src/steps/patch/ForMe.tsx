/** Patching done for one, each move with its reason; and all that is wrong on the way. */
import { useMutation } from "@tanstack/react-query";
import { Link } from "react-router";
import { api, exactly } from "../../api/client";
import type { Patched, Stock } from "../../api/types";
import { useEditor, useEditorPart } from "../../parts/editing";
import { useTake } from "../../parts/hands";
import { useLocker, useStock } from "../../parts/stock";

function useForMe() {
  const editor = useEditor();
  const id = useEditorPart((s) => s.out.id);
  return useMutation({
    mutationFn: () =>
      exactly<Patched>(
        api.POST("/api/layouts/{pk}/patch", {
          params: { path: { pk: id } },
          body: { layout: editor.snapshot().still },
        }),
      ),
    onSuccess: (out) => {
      if (out.moves.length) editor.commit(out.layout, `Patched: ${out.words}`.slice(0, 120));
    },
  });
}

export function ForMe({ onChoose }: { onChoose: (id: string) => void }) {
  const studio = useEditorPart((s) => s.out.studio_id);
  const inputs = useLocker().data?.locker.inputs;
  const patch = useForMe();
  return (
    <section aria-label="Patch it for me" className="space-y-2">
      {inputs && !inputs.length ? (
        <p className="text-[0.88rem]">
          The locker has no inputs yet, so sockets are only numbered.{" "}
          <Link to={`/studios/${studio}/locker`} className="font-semibold underline">
            Add your boxes
          </Link>
        </p>
      ) : (
        <button
          type="button"
          className="btn-main w-full"
          disabled={patch.isPending}
          onClick={() => patch.mutate()}
        >
          {patch.isPending ? "Patching…" : "Patch it for me"}
        </button>
      )}
      {patch.error && (
        <p role="alert" className="text-[0.88rem] text-hollow">
          {patch.error.message}
        </p>
      )}
      {patch.data && <Moves out={patch.data} onChoose={onChoose} />}
      <Faults onChoose={onChoose} />
      <InOrder />
    </section>
  );
}

function Moves({ out, onChoose }: { out: Patched; onChoose: (id: string) => void }) {
  return (
    <div aria-live="polite" data-patched={out.moves.length}>
      <p className="text-[0.88rem] font-semibold">{out.words}</p>
      <ul className="mt-1 max-h-56 space-y-1 overflow-y-auto text-[0.84rem]" aria-label="Moves">
        {out.moves.map((m) => (
          <li key={m.words}>
            <button
              type="button"
              className="text-left hover:underline"
              onClick={() => m.channels[0] && onChoose(m.channels[0])}
            >
              {m.words}
            </button>
          </li>
        ))}
      </ul>
    </div>
  );
}

function Faults({ onChoose }: { onChoose: (id: string) => void }) {
  const stock = useStock().data;
  const doc = useEditorPart((s) => s.still);
  const wrong = (stock?.lacks ?? []).filter((l) => l.on_the_way);
  const loose = (doc.channels ?? []).filter((c) => !c.input).length;
  if (!stock) return null;
  return (
    <div aria-label="What is wrong" role="group">
      {loose > 0 && (
        <p className="text-[0.86rem] text-soft" data-loose={loose}>
          {loose === 1 ? "1 track is" : `${loose} tracks are`} not plugged in.
        </p>
      )}
      {wrong.length === 0 && !loose && (
        <p className="text-[0.88rem] text-ring">Nothing is wrong from mic to track.</p>
      )}
      <ul className="mt-1 space-y-1.5 text-[0.86rem]" role="alert">
        {wrong.map((l) => (
          <Fault key={l.words} fault={l} onChoose={onChoose} />
        ))}
      </ul>
    </div>
  );
}

/** Tracks where people look for them; what is plugged in stays where it is. */
function InOrder() {
  const usual = useStock().data?.usual_order ?? true;
  const take = useTake();
  if (usual) return null;
  return (
    <div className="border-t border-hair pt-2 text-[0.86rem]">
      <p className="text-soft">
        The tracks are not where people look for them: kick and snare, hats and toms, cymbals,
        overheads, rooms.
      </p>
      <button
        type="button"
        className="btn mt-1.5"
        onClick={() => void take({ do: "usual-tracks" })}
      >
        Put the tracks in order
      </button>
      <p className="mt-1 text-soft">Every mic stays in its socket.</p>
    </div>
  );
}

interface FaultProps {
  fault: Stock["lacks"][number];
  onChoose: (id: string) => void;
}

function Fault({ fault, onChoose }: FaultProps) {
  const doc = useEditorPart((s) => s.still);
  const track = doc.channels?.find((c) => fault.mics.includes(c.mic));
  return (
    <li data-fault={fault.kind} className="flex gap-1.5">
      <span aria-hidden="true" className="font-bold text-hollow">
        !
      </span>
      <button
        type="button"
        className="text-left hover:underline"
        onClick={() => track && onChoose(track.id)}
      >
        {fault.words}
      </button>
    </li>
  );
}
