/** A name for one thing that is sent, so that what is sent twice is kept once (RFC 9562, v4). */
export function newKey(): string {
  const b = crypto.getRandomValues(new Uint8Array(16));
  b[6] = ((b[6] ?? 0) & 0x0f) | 0x40;
  b[8] = ((b[8] ?? 0) & 0x3f) | 0x80;
  const hex = Array.from(b, (v) => v.toString(16).padStart(2, "0")).join("");
  return [0, 8, 12, 16, 20].map((at, i) => hex.slice(at, [8, 12, 16, 20, 32][i])).join("-");
}
