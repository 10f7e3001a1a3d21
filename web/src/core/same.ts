/**
 * What an answer says anew, in the objects that were there before wherever it says the same: what is
 * drawn from those is not drawn again.
 */
export { replaceEqualDeep as sameWhereEqual } from "@tanstack/react-query";
