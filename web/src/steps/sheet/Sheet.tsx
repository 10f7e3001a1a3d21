/** The set-up sheet: as it prints, and everything to carry away. */

import { useRef, useState } from "react";
import type { Ruler } from "../../core/units";
import { useEditorPart } from "../../parts/editing";
import { Segmented } from "../../parts/fields/Segmented";
import { useMe } from "../../parts/me";
import { type Paper, PrintPdf } from "./PrintPdf";

export function Sheet() {
  const out = useEditorPart((s) => s.out);
  const saved = useEditorPart((s) => s.saved);
  const ruler: Ruler = useMe();
  const [paper, setPaper] = useState<Paper>("A4");
  const frame = useRef<HTMLIFrameElement>(null);
  const base = `/api/layouts/${out.id}`;
  const query = `units=${ruler.units}&paper=${paper}`;
  return (
    <div className="flex h-full flex-col">
      <div className="flex flex-wrap items-center gap-2 border-b border-hair bg-panel px-4 py-2.5">
        <h1 className="mr-auto text-lg">
          Set-up sheet{" "}
          {saved !== "saved" && (
            <span className="font-text text-[0.85rem] font-normal text-latetext">
              shows the last saved state
            </span>
          )}
        </h1>
        <Segmented
          small
          label="Paper"
          value={paper}
          options={[
            ["A4", "A4"],
            ["Letter", "Letter"],
          ]}
          onTake={setPaper}
        />
        <a className="btn" href={`${base}/sheet.csv?units=${ruler.units}`} download>
          Table, CSV
        </a>
        <a className="btn" href={`${base}/inputs.csv`} download>
          Inputs, CSV
        </a>
        <a className="btn" href={`${base}/tracks.txt`} download>
          Track names
        </a>
        <a className="btn" href={`${base}/file`} download>
          Layout file
        </a>
        <PrintPdf key={query} layout={out.id} units={ruler.units} paper={paper} />
        <button
          type="button"
          className="btn-main py-1.5"
          onClick={() => frame.current?.contentWindow?.print()}
        >
          Print
        </button>
      </div>
      <iframe
        ref={frame}
        key={`${out.version} ${query}`}
        title="Set-up sheet as it prints"
        src={`${base}/sheet?${query}&v=${out.version}`}
        className="min-h-0 w-full flex-1 bg-white"
      />
    </div>
  );
}
