/** What moves the rest of the page as it comes: not from under a hand that has hold of something. */
import { type ReactNode, useEffect, useState } from "react";
import { letGo } from "../core/pressed";
import { pressed } from "./pressed";

export function OnceLetGo({ children }: { children: ReactNode }) {
  const [free, be] = useState(() => !pressed.get());
  useEffect(() => {
    if (!free) void letGo(pressed).then(() => be(true));
  }, [free]);
  return free ? children : null;
}
