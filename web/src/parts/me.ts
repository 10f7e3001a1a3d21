/** Who is signed in, for every part that words lengths. */
import { createContext, useContext } from "react";
import type { Me } from "../api/types";

export const MeContext = createContext<Me | null>(null);

export function useMe(): Me {
  const me = useContext(MeContext);
  if (!me) throw new Error("useMe is for pages behind the sign-in");
  return me;
}
