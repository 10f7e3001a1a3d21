/** Everything of a studio as one open archive, and another installation's read in. */
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { api, must } from "../../api/client";
import type { Job, Recorded } from "../../api/types";
import { megabytes } from "../../core/bytes";
import { newKey } from "../../core/key";
import { FileIn, formOf } from "../../parts/FileIn";
import { JobProgress } from "../../parts/JobProgress";
import { useMe } from "../../parts/me";
import { useJob } from "../../parts/useJob";

const at = (pk: number) => ({ params: { path: { pk } } });

export function CarrySection() {
  const me = useMe();
  return (
    <section>
      <h2 className="text-lg">Carry away</h2>
      <p className="max-w-md text-[0.9rem] text-soft">
        A zip of open files: sessions, layouts with every state, takes, rooms, kits, the locker and
        what was written down. Another Ringside reads it in as a studio of its own. The sound of the
        takes is a zip beside it: over there each take waits in Hits to be given its files.
      </p>
      <ul className="mt-2 space-y-2">
        {me.studios.map((s) => (
          <li key={s.id}>
            <Away studio={s.id} name={s.name} />
          </li>
        ))}
      </ul>
      <ReadIn />
    </section>
  );
}

function Away({ studio, name }: { studio: number; name: string }) {
  const { job, bad, start, stop } = useJob(
    (pk) => must<Job>(api.GET("/api/archives/{pk}", at(pk))),
    (pk) => must<Job>(api.DELETE("/api/archives/{pk}", at(pk))),
  );
  return (
    <div className="flex flex-wrap items-center gap-3">
      <button
        type="button"
        className="btn"
        disabled={job !== null && !job.over}
        onClick={() => start(must<Job>(api.POST("/api/studios/{pk}/archive", at(studio))))}
      >
        Archive of {name}
      </button>
      <Sound studio={studio} />
      <JobProgress job={job} bad={bad} doing="Packing it…" onStop={stop} />
      {job?.state === "done" && (
        <a className="font-semibold underline" href={`/api/archives/${job.id}/studio.zip`}>
          Download it
        </a>
      )}
    </div>
  );
}

/** What was recorded goes by itself: it is too large to be read in at once. */
function Sound({ studio }: { studio: number }) {
  const { data } = useQuery({
    queryKey: ["recorded", studio],
    queryFn: () => must<Recorded>(api.GET("/api/studios/{pk}/recorded", at(studio))),
    refetchOnMount: "always",
  });
  if (data && !data.takes) return <span className="text-soft">no takes yet</span>;
  return (
    <a className="underline" href={`/api/studios/${studio}/recorded.zip`} download>
      Sound of its takes{data && `, ${megabytes(data.size)}`}
    </a>
  );
}

function ReadIn() {
  const queries = useQueryClient();
  const { job, bad, start } = useJob(
    (pk) => must<Job>(api.GET("/api/read-ins/{pk}", at(pk))),
    null,
    () => {
      void queries.invalidateQueries({ queryKey: ["me"] });
      void queries.invalidateQueries({ queryKey: ["sessions"] });
    },
  );
  const send = (file: File) => {
    const form = formOf(file);
    form.append("key", newKey());
    start(
      must<Job>(
        api.POST("/api/read-ins", {
          body: { file: file as unknown as string },
          bodySerializer: () => form,
        }),
      ),
    );
  };
  return (
    <div className="mt-3 flex flex-wrap items-center gap-3">
      <FileIn label="Archive" words="Read an archive in" accept=".zip" onFile={send} />
      <JobProgress job={job} bad={bad} doing="Reading it in…" />
      {job?.state === "done" && <p role="status">It is read in; its sessions are in the list.</p>}
    </div>
  );
}
