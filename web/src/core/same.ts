/**
 * What an answer says anew, in the objects that were there before wherever it says the same: what is
 * drawn from those is not drawn again.
 */
export { replaceEqualDeep as sameWhereEqual } from "@tanstack/react-query";

/**
 * Whether two records have the same in each part, but for those left out. Asked of every drum and mic
 * several times a frame: nothing is made for it.
 */
export function sameParts<T extends object>(
  before: T | null | undefined,
  now: T | null | undefined,
  but: readonly string[] = [],
): boolean {
  if (!before || !now || before === now) return before === now;
  for (const k in now) if (!but.includes(k) && !Object.is(before[k], now[k])) return false;
  for (const k in before)
    if (!(k in now || but.includes(k)) && before[k] !== undefined) return false;
  return true;
}
