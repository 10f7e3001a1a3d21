import { describe, expect, it } from "vitest";
import { chosenAgain, type Line, type Outgoing, PIECE_B, sendAll } from "./sending";

class Server {
  files = new Map<number, number>();
  puts: [number, number][] = [];
  fails: unknown[] = [];
  lost = 0;

  line(more: Partial<Line> = {}): Line {
    return {
      put: async (number, at, piece) => {
        this.puts.push([number, at]);
        const end = this.files.get(number) ?? 0;
        const fault = this.fails.shift();
        // A line that is cut after the piece has come: the answer is lost, the piece is not.
        if (fault === "after") this.files.set(number, at === end ? end + piece.size : end);
        if (fault) throw fault;
        if (at === end) this.files.set(number, end + piece.size);
        return this.files.get(number) ?? 0;
      },
      cut: (error) => error !== "refused",
      away: async () => {
        this.lost += 1;
      },
      reached: () => undefined,
      told: () => undefined,
      stopped: () => false,
      ...more,
    };
  }
}

const file = (number: number, size: number, received = 0): Outgoing => ({
  number,
  size,
  received,
  cut: (from, to) => ({ size: to - from }) as Blob,
});

describe("files on their way", () => {
  it("go piece by piece, one after the other, and how far it is is told", async () => {
    const server = new Server();
    const told: number[] = [];
    const line = server.line({ told: (there, of) => told.push(there / of) });
    expect(await sendAll([file(0, 2.5 * PIECE_B), file(1, 0.5 * PIECE_B)], line)).toBe(true);
    expect(server.puts).toEqual([
      [0, 0],
      [0, PIECE_B],
      [0, 2 * PIECE_B],
      [1, 0],
    ]);
    expect(told[0]).toBe(0);
    expect(told.at(-1)).toBe(1);
  });

  it("go on where the server has their end", async () => {
    const server = new Server();
    server.files.set(0, PIECE_B);
    await sendAll([file(0, 2 * PIECE_B, PIECE_B)], server.line());
    expect(server.puts).toEqual([[0, PIECE_B]]);
  });

  it("send a piece again when the line was cut, and lose and double nothing", async () => {
    const server = new Server();
    server.fails = [undefined, "before", "after"];
    await sendAll([file(0, 3 * PIECE_B)], server.line());
    expect(server.lost).toBe(2);
    expect(server.files.get(0)).toBe(3 * PIECE_B);
    // The one whose answer was lost is sent again at the old end, and told the new one.
    expect(server.puts.map(([, at]) => at / PIECE_B)).toEqual([0, 1, 1, 1, 2]);
  });

  it("stop when they are refused or somebody stops them", async () => {
    const server = new Server();
    server.fails = ["refused"];
    await expect(sendAll([file(0, 10)], server.line())).rejects.toBe("refused");
    expect(await sendAll([file(0, 10)], server.line({ stopped: () => true }))).toBe(false);
  });

  it("are known again by name and size, each once", () => {
    const begun = [
      { name: "a.wav", size: 5, received: 2 },
      { name: "a.wav", size: 5, received: 0 },
    ];
    const one = { name: "a.wav", size: 5 };
    const other = { name: "a.wav", size: 5 };
    expect(chosenAgain(begun, [one, other])).toEqual([one, other]);
    expect(chosenAgain(begun, [one])).toBeNull();
    expect(chosenAgain(begun.slice(1), [{ name: "a.wav", size: 6 }])).toBeNull();
  });
});
