/** The set-up sheet and the labels: as they print, and everything to carry away. */
import { useRef, useState } from "react";
import type { Ruler } from "../../core/units";
import { useAtKit } from "../../parts/atkit/log";
import { useAsShown } from "../../parts/atkit/State";
import { useEditorPart } from "../../parts/editing";
import { Segmented } from "../../parts/fields/Segmented";
import { useMe } from "../../parts/me";
import { NoMics } from "../../parts/NoMics";
import { type Paper, PrintPdf } from "./PrintPdf";

type Shown = "sheet" | "inputs" | "labels";
type Wide = "20" | "25" | "30";

export function Sheet() {
  const out = useEditorPart((s) => s.out);
  const ruler: Ruler = useMe();
  const [shown, show] = useState<Shown>("sheet");
  const [paper, setPaper] = useState<Paper>("A4");
  const [wide, setWide] = useState<Wide>("25");
  const frame = useRef<HTMLIFrameElement>(null);
  const state: "planned" | "stands" = useAsShown() ? "stands" : "planned";
  const written = useAtKit().log.length;
  const mics = useEditorPart((s) => s.still.mics.length > 0);
  const query = {
    sheet: `units=${ruler.units}&paper=${paper}&state=${state}`,
    inputs: `paper=${paper}`,
    labels: `width=${wide}`,
  }[shown];
  return (
    <div className="flex h-full flex-col">
      <div className="flex flex-wrap items-center gap-2 border-b border-hair bg-panel px-4 py-2.5">
        <Title />
        <Segmented small label="Page" value={shown} options={PAGES} onTake={show} />
        {shown !== "labels" ? (
          <Segmented small label="Paper" value={paper} options={PAPERS} onTake={setPaper} />
        ) : (
          <Segmented
            small
            label="Width of a label"
            value={wide}
            options={WIDTHS}
            onTake={setWide}
          />
        )}
        <Carry layout={out.id} ruler={ruler} state={state} />
        {shown !== "labels" && (
          <PrintPdf
            key={`${shown} ${query}`}
            {...{ layout: out.id, units: ruler.units, paper, what: shown, state }}
          />
        )}
        <button
          type="button"
          className="btn-main py-1.5"
          onClick={() => frame.current?.contentWindow?.print()}
        >
          Print
        </button>
      </div>
      {!mics && <NoMics words="The sheet has only the kit yet." />}
      <iframe
        ref={frame}
        key={`${out.version} ${written} ${shown} ${query}`}
        title={TITLES[shown]}
        src={`/api/layouts/${out.id}/${shown}?${query}&v=${out.version}`}
        className="min-h-0 w-full flex-1 bg-white"
      />
    </div>
  );
}

const PAGES = [
  ["sheet", "Sheet"],
  ["inputs", "Inputs"],
  ["labels", "Labels"],
] as const;
const TITLES = {
  sheet: "Set-up sheet as it prints",
  inputs: "List of inputs as it prints",
  labels: "Labels as they print",
};
const PAPERS = [
  ["A4", "A4"],
  ["Letter", "Letter"],
] as const;
const WIDTHS = [
  ["20", "20 mm"],
  ["25", "25"],
  ["30", "30"],
] as const;

function Title() {
  const saved = useEditorPart((s) => s.saved);
  return (
    <h1 className="mr-auto text-lg">
      Set-up sheet{" "}
      {saved !== "saved" && (
        <span className="font-text text-[0.85rem] font-normal text-latetext">
          shows the last saved state
        </span>
      )}
    </h1>
  );
}

function Carry(props: { layout: number; ruler: Ruler; state: string }) {
  const { layout, ruler, state } = props;
  const files = [
    [`sheet.csv?units=${ruler.units}&state=${state}`, "Table, CSV"],
    ["inputs.csv", "Inputs, CSV"],
    ["tracks.txt", "Track names"],
    ["file", "Layout file"],
  ] as const;
  return files.map(([file, words]) => (
    <a key={words} className="btn" href={`/api/layouts/${layout}/${file}`} download>
      {words}
    </a>
  ));
}
