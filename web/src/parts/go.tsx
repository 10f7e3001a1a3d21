/**
 * Going to an address, for what is there on every screen: the router's own way of it has whatever
 * uses it drawn anew at each change of the address.
 */
import { createContext, type ReactNode, useContext } from "react";
import { useNavigate } from "react-router";
import { useSteady } from "./steady";

type Go = (address: string) => void;

const GoContext = createContext<Go | null>(null);

/** Round everything that may go somewhere; only this is drawn anew when it does. */
export function GoProvider({ children }: { children: ReactNode }) {
  const navigate = useNavigate();
  const go = useSteady((address: string) => void navigate(address));
  return <GoContext value={go}>{children}</GoContext>;
}

/** Go to an address from the root, such as `/layouts/1/place`. */
export function useGo(): Go {
  const go = useContext(GoContext);
  if (!go) throw new Error("useGo is for what is shown within the application");
  return go;
}
