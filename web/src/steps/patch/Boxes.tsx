/** Where each box stands on the floor, so that cables can be told too short. */
import type { InputBank } from "../../api/types";
import type { Ruler } from "../../core/units";
import { useEditorPart } from "../../parts/editing";
import { LengthField } from "../../parts/fields/LengthField";
import { useTake } from "../../parts/hands";
import { useMe } from "../../parts/me";
import { useLocker } from "../../parts/stock";

export function Boxes() {
  const inputs = useLocker().data?.locker.inputs;
  if (!inputs?.length) return null;
  return (
    <details className="text-[0.88rem]">
      <summary className="cursor-pointer font-semibold">Where the boxes stand</summary>
      <p className="mt-1 text-[0.84rem] text-soft">
        From the snare: to the drummer's right, and toward the audience. Cables are counted square
        to the walls, with the stand and some slack.
      </p>
      {inputs.map((bank) => (
        <OneBox key={bank.id} bank={bank} />
      ))}
    </details>
  );
}

function OneBox({ bank }: { bank: InputBank }) {
  const ruler: Ruler = useMe();
  const take = useTake();
  const at = useEditorPart((s) => s.still.boxes?.find((b) => b.bank === bank.id)?.position_m);
  const put = (position_m: [number, number] | null) =>
    void take({ do: "box", bank: bank.id, position_m });
  const [right, front] = at ?? [0, 0];
  return (
    <fieldset className="mt-2">
      <legend className="font-semibold">{bank.name}</legend>
      {at ? (
        <div className="grid grid-cols-[1fr_1fr_auto] items-end gap-2">
          <LengthField label="Right" metres={right} ruler={ruler} onTake={(m) => put([m, front])} />
          <LengthField label="Front" metres={front} ruler={ruler} onTake={(m) => put([right, m])} />
          <button type="button" className="btn" onClick={() => put(null)}>
            Forget
          </button>
        </div>
      ) : (
        <button type="button" className="btn mt-1" onClick={() => put([-2, 1])}>
          Say where it stands
        </button>
      )}
    </fieldset>
  );
}
