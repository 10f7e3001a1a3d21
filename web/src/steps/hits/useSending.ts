/** Files of a take on their way: begun, sent in pieces through cut lines, stopped, taken up again. */
import { useRef, useState } from "react";
import { api, csrfToken, fateOf, must } from "../../api/client";
import type { Take } from "../../api/types";
import { newKey } from "../../core/key";
import { Patience } from "../../core/patience";
import { chosenAgain, sendAll } from "../../core/sending";

export interface OnTheWay {
  take: number | null;
  there: number;
  of: number;
  /** The line is cut; it goes on by itself. */
  waiting: boolean;
}

/** A piece as it is: the generated client knows JSON only. */
async function putPiece(take: number, number: number, at: number, piece: Blob): Promise<number> {
  const response = await fetch(`/api/takes/${take}/files/${number}?at=${at}`, {
    method: "PUT",
    body: piece,
    headers: { "X-CSRFToken": csrfToken(), "Content-Type": "application/octet-stream" },
  });
  const body = response.headers.get("content-type")?.includes("json") ? response.json() : null;
  const told = response.ok ? { data: await body } : { error: await body };
  return (await must<{ received: number }>(Promise.resolve({ ...told, response }))).received;
}

async function beginTake(layout: number, files: readonly File[]): Promise<Take> {
  return must<Take>(
    api.POST("/api/layouts/{pk}/takes", {
      params: { path: { pk: layout } },
      body: {
        key: newKey(),
        name: nameOf(files),
        files: files.map(({ name, size }) => ({ name, size })),
      },
    }),
  );
}

const nameOf = (files: readonly File[]) =>
  files.length === 1
    ? (files[0]?.name ?? "").replace(/\.\w{2,4}$/, "").slice(0, 80) || "Take"
    : `Take of ${new Date().toLocaleTimeString(undefined, { timeStyle: "short" })}`;

export function useSending(layout: number, onDone: (take: number) => void) {
  const [on, setOn] = useState<OnTheWay | null>(null);
  const [bad, setBad] = useState("");
  const stopped = useRef(false);

  const send = async (take: Take, files: readonly File[]) => {
    const patience = new Patience();
    const told = (there: number, of: number) => setOn({ take: take.id, there, of, waiting: false });
    const all = await sendAll(
      take.files.map((f, n) => ({
        ...f,
        cut: (from, to) => (files[n] as File).slice(from, to),
      })),
      {
        put: (number, at, piece) => putPiece(take.id, number, at, piece),
        cut: (error) => ["away", "stranger"].includes(fateOf(error)),
        away: () => {
          setOn((now) => now && { ...now, waiting: true });
          return patience.next();
        },
        reached: () => patience.reached(),
        told,
        stopped: () => stopped.current,
      },
    );
    patience.stop();
    if (all) onDone(take.id);
  };

  /** New files, or those of a take that was begun before and is not whole. */
  const start = async (files: readonly File[], begun?: Take) => {
    setBad("");
    stopped.current = false;
    try {
      const same = begun ? chosenAgain(begun.files, files) : files;
      if (!same) {
        setBad("These are not the files this take was begun with: names and sizes differ.");
        return;
      }
      setOn({ take: begun?.id ?? null, there: 0, of: 1, waiting: false });
      await send(begun ?? (await beginTake(layout, same)), same);
    } catch (error) {
      setBad((error as Error).message);
    } finally {
      setOn(null);
    }
  };
  const stop = () => {
    stopped.current = true;
  };
  return { on, bad, start, stop };
}

export type Sending = ReturnType<typeof useSending>;
