/** A CSV file put in: what could not be read is named row by row, the rest is kept. */
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, must } from "../../api/client";
import type { LockerRead } from "../../api/types";
import { FileIn, formOf } from "../../parts/FileIn";
import { useToast } from "../../parts/toast";

/** Rows told by name; the file itself is at hand for the rest. */
const MOST_TOLD = 30;

type Faults = LockerRead["faults"];

export function ReadCsv({ studio }: { studio: number }) {
  const queries = useQueryClient();
  const say = useToast();
  const [faults, setFaults] = useState<Faults>([]);
  const send = useMutation({
    mutationFn: (file: File) =>
      must(
        api.POST("/api/studios/{pk}/locker.csv", {
          params: { path: { pk: studio } },
          body: { file: file as unknown as string },
          bodySerializer: () => formOf(file),
        }) as Promise<{ data?: LockerRead; error?: unknown; response: Response }>,
      ),
    onSuccess: (read) => {
      queries.setQueryData(["locker", studio], { version: read.version, locker: read.locker });
      setFaults(read.faults);
      if (!read.faults.length) say("Every row is read in");
    },
    onError: (e) => {
      setFaults([]);
      say(`The file was not read and nothing was changed: ${e.message}`);
    },
  });
  return (
    <>
      <FileIn
        label="Locker as CSV"
        words="Read a CSV"
        accept=".csv,text/csv"
        onFile={(file) => send.mutate(file)}
      />
      {faults.length > 0 && <LeftOut faults={faults} />}
    </>
  );
}

function LeftOut({ faults }: { faults: Faults }) {
  return (
    <div role="alert" className="w-full rounded-card border border-hollow p-3 text-[0.9rem]">
      <p className="font-semibold text-hollow">
        {faults.length === 1 ? "One row was" : `${faults.length} rows were`} left out; all others
        are read in.
      </p>
      <ul>
        {faults.slice(0, MOST_TOLD).map((f) => (
          <li key={`${f.line} ${f.column}`}>
            <span className="num">
              line {f.line}, {f.column}:
            </span>{" "}
            {f.words}
          </li>
        ))}
        {faults.length > MOST_TOLD && <li>and {faults.length - MOST_TOLD} more</li>}
      </ul>
    </div>
  );
}
