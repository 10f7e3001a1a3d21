/** What was told last, for what somebody works with while the server is away. */
import { useState } from "react";

/** The newest answer there was: a question that failed takes nothing off the screen. */
export function useLast<T>(told: T | undefined): T | undefined {
  const [last, keep] = useState(told);
  if (told !== undefined && told !== last) keep(told);
  return told ?? last;
}
