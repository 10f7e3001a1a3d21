/** Instrument notes: the note of every drum, the spread of the toms, lugs through the day. */
import { useQuery } from "@tanstack/react-query";
import { api, exactly } from "../../../api/client";
import type { Tuning } from "../../../api/types";
import { useEditorPart } from "../../../parts/editing";
import { Scroll } from "../../../parts/fields/Scroll";
import { Lugs } from "./Lugs";
import { Notes } from "./Notes";
import { PitchLine } from "./PitchLine";

export function TuningPanel({ onChoose }: { onChoose: (id: string) => void }) {
  const kit = useEditorPart((s) => s.still.kit);
  const session = useEditorPart((s) => s.out.session_id);
  const path = { params: { path: { pk: session } } };
  const asked = useQuery({
    queryKey: ["tuning", session, kit],
    queryFn: () => exactly<Tuning>(api.POST("/api/sessions/{pk}/tuning", { ...path, body: kit })),
    placeholderData: (old) => old,
    refetchInterval: 60_000,
  });
  const tuning = asked.data;
  if (!tuning) return <p className="px-4 text-soft">{asked.error?.message ?? "Asking…"}</p>;
  return (
    <div className="grid h-full min-h-0 grid-cols-[minmax(0,1.1fr)_minmax(0,1fr)] gap-5 px-4 pb-3 narrow:h-auto narrow:grid-cols-[minmax(0,1fr)]">
      <Scroll seen label="Notes of the drums">
        <PitchLine tuning={tuning} />
        <Notes tuning={tuning} onChoose={onChoose} />
        <p className="text-[0.88rem]" data-spread>
          {tuning.spread_words}
        </p>
      </Scroll>
      <Scroll seen label="Lugs and their log">
        <div className="pr-3">
          <Lugs tuning={tuning} session={session} />
        </div>
      </Scroll>
    </div>
  );
}
