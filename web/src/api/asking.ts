/** When a question is asked again: what was refused is not; a server that is away or busy is. */
import type { Query, QueryClientConfig } from "@tanstack/react-query";
import { Answered, fateOf } from "./client";

/** So many times at once, longer apart each time; then the fault is shown. */
const TIMES = 3;
const APART_MS = 1000;
/** And from then on as long as it is shown: a panel does not keep the fault of a server that is back. */
const WHILE_SHOWN_MS = 5000;
/** One that is there and failed at it will most likely do so again: what is asked costs it as much. */
const FAILED_MS = 60_000;

const isAway = (error: Error | null): boolean => error !== null && fateOf(error) === "away";

const FAILURE = 500;

function againAfter(error: Error | null): number | false {
  if (!isAway(error)) return false;
  return error instanceof Answered && error.status === FAILURE ? FAILED_MS : WHILE_SHOWN_MS;
}

export const asking: QueryClientConfig = {
  defaultOptions: {
    queries: {
      retry: (count, error) => isAway(error) && count < TIMES,
      retryDelay: (count) => APART_MS * 2 ** count,
      refetchInterval: ({ state }: Query) => againAfter(state.error),
      refetchOnWindowFocus: false,
      staleTime: 5000,
    },
  },
};
