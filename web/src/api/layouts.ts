/** An open layout, asked for while the page itself is still on its way. */
import { api, exactly } from "./client";
import type { LayoutOut } from "./types";

const get = (pk: number) => api.GET("/api/layouts/{pk}", { params: { path: { pk } } });

let ahead: { id: number; call: ReturnType<typeof get> } | null = null;

/** What an address will need, before it is known who is there; nothing is said of a failure. */
export function askAhead(address: string): void {
  const id = /^\/layouts\/(\d+)(\/|$)/.exec(address)?.[1];
  if (!id) return;
  ahead = { id: Number(id), call: get(Number(id)) };
  ahead.call.catch(() => undefined);
}

/** A layout; what was asked ahead is taken once, and asked again where it came to nothing. */
export async function layoutOf(id: number): Promise<LayoutOut> {
  const early = ahead?.id === id ? await ahead.call.catch(() => null) : null;
  ahead = null;
  return exactly<LayoutOut>(early?.response.ok ? Promise.resolve(early) : get(id));
}
