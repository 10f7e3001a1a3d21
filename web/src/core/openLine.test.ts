/** A line that opens, answers by number, falls silent, is refused, and is put down. */
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { OpenLine, type Reply } from "./openLine";

class Socket {
  static OPEN = 1;
  static made: Socket[] = [];
  readyState = 0;
  sent: string[] = [];
  onopen?: () => void;
  onclose?: () => void;
  onmessage?: (event: { data: ArrayBuffer }) => void;
  constructor(readonly url: string) {
    Socket.made.push(this);
  }
  send(text: string) {
    this.sent.push(text);
  }
  close() {
    this.readyState = 3;
  }
  opens() {
    this.readyState = 1;
    this.onopen?.();
  }
  closes() {
    this.readyState = 3;
    this.onclose?.();
  }
  says(number: number, status: number, text = "") {
    const bytes = new TextEncoder().encode(text);
    const data = new ArrayBuffer(6 + bytes.length);
    const view = new DataView(data);
    view.setUint32(0, number, true);
    view.setUint16(4, status, true);
    new Uint8Array(data, 6).set(bytes);
    this.onmessage?.({ data });
  }
}

const ADDRESS = "ws://here/api/hand";
const text = (reply: Reply | null) => reply && new TextDecoder().decode(reply.bytes);
let line: OpenLine;

function opened(): Socket {
  line.begin();
  const socket = Socket.made.at(-1) as Socket;
  socket.opens();
  return socket;
}

beforeEach(() => {
  vi.useFakeTimers();
  Socket.made = [];
  vi.stubGlobal("WebSocket", Socket);
  line = new OpenLine(ADDRESS);
});
afterEach(() => vi.useRealTimers());

it("asks otherwise until it is open, and opens one only", async () => {
  expect(await line.ask("/api/follow", "{}")).toBeNull();
  line.begin();
  expect(Socket.made.map((s) => [s.url, s.sent])).toEqual([[ADDRESS, []]]);
});

it("gives each question the answer of its number", async () => {
  const socket = opened();
  const first = line.ask("/api/follow", '{"a":1}');
  const second = line.ask("/api/edit", "{}");
  expect(socket.sent).toEqual(['1 /api/follow\n{"a":1}', "2 /api/edit\n{}"]);
  socket.says(2, 409);
  socket.says(1, 200, '"first"');
  socket.says(1, 200, '"once more"'); // nobody waits for it
  expect([await first, await second].map((r) => [r?.status, text(r)])).toEqual([
    [200, '"first"'],
    [409, ""],
  ]);
});

it("is let go of by those who wait when it closes, and opened again a second later", async () => {
  const socket = opened();
  const asked = line.ask("/api/follow", "{}");
  socket.closes();
  expect(await asked).toBeNull();
  vi.advanceTimersByTime(900);
  line.begin();
  expect(Socket.made.length).toBe(1);
  vi.advanceTimersByTime(200);
  line.begin();
  expect(Socket.made.length).toBe(2);
});

it("is put down when an answer is eight seconds late, not when it is seven", async () => {
  const socket = opened();
  const told: (Reply | null)[] = [];
  void line.ask("/api/follow", "{}").then((r) => told.push(r));
  await vi.advanceTimersByTimeAsync(7_400);
  expect([socket.readyState, told]).toEqual([1, []]);
  await vi.advanceTimersByTimeAsync(1_200);
  expect([socket.readyState, told]).toEqual([3, [null]]);
});

it("is not tried again for a minute where it could not be opened", () => {
  line.begin();
  Socket.made[0]?.closes();
  vi.advanceTimersByTime(59_000);
  line.begin();
  expect(Socket.made.length).toBe(1);
  vi.advanceTimersByTime(2_000);
  line.begin();
  expect(Socket.made.length).toBe(2);
});

it("does without, for a minute too, where the browser will open none", async () => {
  let tried = 0;
  vi.stubGlobal("WebSocket", function refused() {
    tried++;
    throw new DOMException("not from here", "SecurityError");
  });
  for (const _ of [1, 2]) expect(await line.ask("/api/follow", "{}")).toBeNull();
  expect(tried).toBe(1);
});

it("is put down when nobody has asked for three quarters of a minute, and taken up again", async () => {
  const socket = opened();
  vi.advanceTimersByTime(30_000);
  void line.ask("/api/follow", "{}");
  socket.says(1, 200);
  vi.advanceTimersByTime(30_000);
  expect(socket.readyState).toBe(1);
  vi.advanceTimersByTime(16_000);
  expect(socket.readyState).toBe(3);
  expect(await line.ask("/api/follow", "{}")).toBeNull();
  expect(Socket.made.length).toBe(2);
});
