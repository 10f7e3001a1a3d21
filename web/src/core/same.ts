/**
 * What an answer says anew, in the objects that were there before wherever it says the same: what is
 * drawn from those is not drawn again.
 */
export { replaceEqualDeep as sameWhereEqual } from "@tanstack/react-query";

/** Whether two records have the same in each part. */
export function sameParts<T extends object>(
  before: T | null | undefined,
  now: T | null | undefined,
) {
  if (!before || !now || before === now) return before === now;
  const keys = new Set([...Object.keys(before), ...Object.keys(now)]) as Set<keyof T>;
  return [...keys].every((k) => Object.is(before[k], now[k]));
}
