/** Where overheads and room mics stand by what they hear. */
import type { TakeTold } from "../../api/types";
import { micOf } from "../../core/edits";
import { useEditorPart } from "../../parts/editing";
import { MicTag } from "../../parts/MicTag";
import { Words } from "../../parts/Words";

type Place = TakeTold["places"][number];

const by = ({ drums, taped }: Place) =>
  `By ${drums.length} ${drums.length === 1 ? "drum" : "drums"}${taped === "joined" ? " and the tape" : ""}.`;

export function PlacesHeard({ told }: { told: TakeTold }) {
  const doc = useEditorPart((s) => s.still);
  if (!told.places.length)
    return (
      <p className="text-soft">
        No overhead or room mic is heard on three drums or more: play more drums, or read them with
        the tape.
      </p>
    );
  return (
    <ul aria-label="Places by hits" className="space-y-2 text-[0.92rem]">
      {told.places.map((p) => {
        const mic = micOf(doc, p.mic);
        return (
          <li key={p.mic} data-place={p.mic} className="flex flex-wrap gap-2">
            {mic && <MicTag mic={mic} layout={doc} />}
            <span className="min-w-0 flex-1">
              <Words of={p.words} /> <span className="text-soft">{by(p)}</span>{" "}
              <Words of={p.open} />
              {p.taped === "differs" && (
                <span className="block text-latetext">
                  <Words of={p.apart} />
                </span>
              )}
              {p.left_out.length > 0 && (
                <span className="block text-latetext">
                  {p.left_out.join(", ")} did not fit the others and was left out.
                </span>
              )}
            </span>
          </li>
        );
      })}
    </ul>
  );
}
