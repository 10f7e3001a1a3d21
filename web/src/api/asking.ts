/** When a question is asked again: what was refused is not; a server that is away or busy is. */
import type { Query, QueryClientConfig } from "@tanstack/react-query";
import { fateOf } from "./client";

/** So many times at once, longer apart each time; then the fault is shown. */
const TIMES = 3;
const APART_MS = 1000;
/** And from then on as long as it is shown: a panel does not keep the fault of a server that is back. */
const WHILE_SHOWN_MS = 5000;

const isAway = (error: Error | null): boolean => error !== null && fateOf(error) === "away";

export const asking: QueryClientConfig = {
  defaultOptions: {
    queries: {
      retry: (count, error) => isAway(error) && count < TIMES,
      retryDelay: (count) => APART_MS * 2 ** count,
      refetchInterval: ({ state }: Query) => (isAway(state.error) ? WHILE_SHOWN_MS : false),
      refetchOnWindowFocus: false,
      staleTime: 5000,
    },
  },
};
