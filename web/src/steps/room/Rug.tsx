/** The rug goes with the kit; it takes from the decay what it covers. */
import { useEditor, useEditorPart } from "../../parts/editing";
import { Lengths } from "../../parts/fields/Lengths";

const PLAIN = { centre_m: [0.18, 0.14] as [number, number], width_m: 2.4, length_m: 2 };

type RugDoc = typeof PLAIN;

export function Rug() {
  const editor = useEditor();
  const rug = useEditorPart((s) => s.still.kit.rug) ?? null;
  const put = (next: RugDoc | null, what: string) => {
    const { still } = editor.snapshot();
    editor.commit({ ...still, kit: { ...still.kit, rug: next } }, what);
  };
  if (!rug)
    return (
      <button type="button" className="btn w-full" onClick={() => put(PLAIN, "Laid a rug")}>
        Lay a rug under the kit
      </button>
    );
  const change = (more: Partial<RugDoc>) => put({ ...rug, ...more }, "Changed the rug");
  const [x, y] = rug.centre_m;
  return (
    <details>
      <summary className="mb-2 font-bold">Rug under the kit</summary>
      <Lengths
        across={2}
        rows={[
          ["Across", rug.width_m, (m) => change({ width_m: m })],
          ["Deep", rug.length_m, (m) => change({ length_m: m })],
          ["Middle, right", x, (m) => change({ centre_m: [m, y] })],
          ["Middle, front", y, (m) => change({ centre_m: [x, m] })],
        ]}
      />
      <button
        type="button"
        className="btn mt-2 w-full"
        onClick={() => put(null, "Took the rug away")}
      >
        Take the rug away
      </button>
    </details>
  );
}
