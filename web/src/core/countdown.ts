/** How long something still lasts, as minutes and seconds; never below nothing. */
export function minutesLeft(ends: string, now: number): string {
  const s = Math.max(0, Math.ceil((Date.parse(ends) - now) / 1000));
  return `${Math.floor(s / 60)}:${String(s % 60).padStart(2, "0")}`;
}
