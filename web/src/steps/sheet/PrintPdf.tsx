/** The sheet as PDF: asked for, waited for, and saved as soon as it is there. */
import { api, must } from "../../api/client";
import type { Job, Units } from "../../api/types";
import { JobProgress } from "../../parts/JobProgress";
import { useJob } from "../../parts/useJob";

export type Paper = "A4" | "Letter";

const at = (pk: number) => ({ params: { path: { pk } } });

/** The browser saves it under the name that the answer gives. */
const save = (pk: number) => {
  const link = document.createElement("a");
  link.href = `/api/prints/${pk}/sheet.pdf`;
  link.download = "";
  link.click();
};

interface Props {
  layout: number;
  units: Units;
  paper: Paper;
  what: "sheet" | "inputs";
  state: "planned" | "stands";
}

export function PrintPdf({ layout, units, paper, what, state }: Props) {
  const { job, bad, start, stop } = useJob(
    (pk) => must<Job>(api.GET("/api/prints/{pk}", at(pk))),
    (pk) => must<Job>(api.DELETE("/api/prints/{pk}", at(pk))),
    (done) => save(done.id),
  );
  const ask = () =>
    start(
      must<Job>(
        api.POST("/api/layouts/{pk}/pdf", {
          params: { path: { pk: layout }, query: { units, paper, what, state } },
        }),
      ),
    );
  return (
    <>
      <JobProgress job={job} bad={bad} doing="Making the PDF…" onStop={stop} />
      <button type="button" className="btn" disabled={job !== null && !job.over} onClick={ask}>
        PDF, {paper}
      </button>
    </>
  );
}
