/**
 * Files on their way in pieces: each goes on where the server has its end, so that a cut line, a
 * piece sent twice or a page closed in the middle costs nothing but the piece that was on its way.
 */

export const PIECE_B = 1_000_000;

export interface Outgoing {
  number: number;
  size: number;
  /** Where the server has its end. */
  received: number;
  cut: (from: number, to: number) => Blob;
}

export interface Line {
  /** Sends a piece; resolves to where the file goes on. */
  put: (number: number, at: number, piece: Blob) => Promise<number>;
  /** Whether what went wrong is the line, and so worth trying again. */
  cut: (error: unknown) => boolean;
  /** Resolves when it is worth trying again. */
  away: () => Promise<void>;
  reached: () => void;
  /** Told how many bytes of all are there. */
  told: (there: number, of: number) => void;
  stopped: () => boolean;
}

/** Resolves to whether everything is there; false where it was stopped. */
export async function sendAll(files: readonly Outgoing[], line: Line): Promise<boolean> {
  const of = files.reduce((n, f) => n + f.size, 0);
  const there = new Map(files.map((f) => [f.number, f.received]));
  const say = () =>
    line.told(
      [...there.values()].reduce((n, b) => n + b, 0),
      of,
    );
  say();
  for (const file of files) {
    let at = file.received;
    while (at < file.size) {
      if (line.stopped()) return false;
      const end = Math.min(at + PIECE_B, file.size);
      try {
        at = await line.put(file.number, at, file.cut(at, end));
      } catch (error) {
        if (!line.cut(error)) throw error;
        await line.away();
        continue;
      }
      line.reached();
      there.set(file.number, at);
      say();
    }
  }
  return true;
}

/** Which of the chosen files each begun one is: by name and size; none where one is missing. */
export function chosenAgain<F extends { name: string; size: number }>(
  begun: readonly { name: string; size: number; received: number }[],
  chosen: readonly F[],
): F[] | null {
  const made: F[] = [];
  for (const b of begun) {
    const same = chosen.find((c) => c.name === b.name && c.size === b.size && !made.includes(c));
    if (!same) return null;
    made.push(same);
  }
  return made;
}
