/** The boxes in words: where each stands, what is on it, and how long a cable every mic wants. */
import type { InputBank, Stock } from "../../../api/types";
import { toKit, toRoom } from "../../../core/roomShape";
import { cableText } from "../../../core/units";
import type { Point2 } from "../../../core/view";
import { useEditorPart } from "../../../parts/editing";
import { LengthField } from "../../../parts/fields/LengthField";
import { useMe } from "../../../parts/me";
import { useLocker, useStock } from "../../../parts/stock";
import { useBoxSpots, usePutBox } from "./useBoxes";

interface Props {
  /** The mic whose cable is pointed at. */
  onPoint: (mic: string | null) => void;
}

export function BoxList({ onPoint }: Props) {
  const inputs = useLocker().data?.locker.inputs ?? [];
  const leads = useStock(true).data?.leads ?? [];
  const room = useEditorPart((s) => Boolean(s.still.room));
  return (
    <section aria-label="Where the boxes stand" className="space-y-3">
      <p className="text-[0.86rem] text-soft">
        {room
          ? "Drag a box to where it stands, or type how far it is from the walls."
          : "Drag a box to where it stands, or type how far it is from the snare."}{" "}
        Cables are counted square to the walls, with the stand and some slack.
      </p>
      {inputs.map((bank) => (
        <OneBox
          key={bank.id}
          bank={bank}
          leads={leads.filter((l) => l.bank === bank.name)}
          onPoint={onPoint}
        />
      ))}
    </section>
  );
}

interface BoxProps extends Props {
  bank: InputBank;
  leads: Stock["leads"];
}

function OneBox({ bank, leads, onPoint }: BoxProps) {
  const at = useBoxSpots().get(bank.id);
  const put = usePutBox();
  return (
    <fieldset>
      <legend className="font-semibold">{bank.name}</legend>
      {at ? (
        <Spot bank={bank.id} at={at} />
      ) : (
        <button type="button" className="btn mt-1" onClick={() => put(bank.id, [-1.5, 1])}>
          Put it on the floor
        </button>
      )}
      {!leads.length && at && <p className="mt-1 text-[0.86rem] text-soft">Nothing plugged in.</p>}
      <ul className="mt-1 text-[0.86rem]">
        {leads.map((lead) => (
          <OneLead key={lead.mic} lead={lead} onPoint={onPoint} />
        ))}
      </ul>
    </fieldset>
  );
}

/** Its place, typed: from two walls, or from the snare where there are none. */
function Spot({ bank, at }: { bank: string; at: Point2 }) {
  const ruler = useMe();
  const put = usePutBox();
  const room = useEditorPart((s) => s.doc.room);
  const [x, y] = room ? toRoom(room, ...at) : at;
  const to = (px: number, py: number) => {
    const [kx, ky] = room ? toKit(room, px, py) : [px, py];
    put(bank, [kx, ky]);
  };
  return (
    <div className="grid grid-cols-[1fr_1fr_auto] items-end gap-2">
      <LengthField
        label={room ? "Left wall" : "Right"}
        metres={x}
        ruler={ruler}
        onTake={(m) => to(m, y)}
      />
      <LengthField
        label={room ? "Back wall" : "In front"}
        metres={y}
        ruler={ruler}
        onTake={(m) => to(x, m)}
      />
      <button type="button" className="btn" onClick={() => put(bank, null)}>
        Forget
      </button>
    </div>
  );
}

function OneLead({ lead, onPoint }: { lead: Stock["leads"][number]; onPoint: Props["onPoint"] }) {
  const ruler = useMe();
  return (
    <li
      className="flex gap-2"
      data-lead={lead.mic}
      onPointerEnter={() => onPoint(lead.mic)}
      onPointerLeave={() => onPoint(null)}
    >
      <span className="w-10 font-semibold">{lead.mic}</span>
      <span className="num w-20 text-right">{cableText(lead.metres, ruler)}</span>
      <span className={lead.cable === "" ? "font-semibold text-hollow" : "text-soft"}>
        {lead.cable === "" ? "no cable left that reaches" : lead.cable}
      </span>
    </li>
  );
}
