/** A sentence of the core, in the units of who reads it. */
import type { Told } from "../api/types";
import { worded } from "../core/told";
import { useMe } from "./me";

export function Words({ of }: { of: Told }) {
  return worded(of, useMe());
}
