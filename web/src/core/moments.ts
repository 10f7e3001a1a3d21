/** When something was, as people here write it. */

export const atClock = (at: string) =>
  new Date(at).toLocaleTimeString([], { hour: "2-digit", minute: "2-digit", hourCycle: "h23" });

export const dayAndHour = (at: string) =>
  new Date(at).toLocaleString(undefined, { dateStyle: "medium", timeStyle: "short" });

/** The hour; with the day where that was not today. */
export function when(at: string, now = new Date()): string {
  const then = new Date(at);
  if (then.toDateString() === now.toDateString()) return atClock(at);
  return `${then.toLocaleDateString(undefined, { dateStyle: "medium" })}, ${atClock(at)}`;
}
