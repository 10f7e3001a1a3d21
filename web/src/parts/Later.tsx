/** What is not looked at first comes right after the first picture, so that this one comes sooner. */
import { type ReactNode, startTransition, useEffect, useState } from "react";

/** For what has a place of its own whatever is in it: nothing may move when it comes. */
export function Later({ children }: { children: ReactNode }) {
  const [now, setNow] = useState(false);
  useEffect(() => {
    const soon = setTimeout(() => startTransition(() => setNow(true)));
    return () => clearTimeout(soon);
  }, []);
  return now ? children : null;
}
