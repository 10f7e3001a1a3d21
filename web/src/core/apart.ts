/**
 * What is read off the page, and only then what is written on it: a reading after a writing has the
 * browser lay out the page at once, and it will do that anyway before the next frame.
 */

/** Reads, and gives what is to be written then, if anything. */
type Reading = () => (() => void) | undefined;

let readings: Reading[] = [];

/** With all that is wanted so in the same turn, right after it: long before the next frame. */
export function apart(read: Reading): void {
  if (readings.length === 0) queueMicrotask(turn);
  readings.push(read);
}

function turn(): void {
  const due = readings;
  readings = [];
  const writings = due.map(safely);
  for (const write of writings) if (write) safely(write);
}

/** A fault in one keeps no other from its turn. */
function safely<T>(step: () => T): T | undefined {
  try {
    return step();
  } catch (error) {
    reportError(error);
    return undefined;
  }
}
