/**
 * Asks what follows a hand, beside the page: what is drawn does not wait for what is sent and read.
 * The layout comes once, when the hand takes hold; after that only what moves.
 */
export interface Ask {
  number: number;
  path: string;
  token: string;
  /** A name for the layout as it stood, and its text where it is another one than before. */
  name: string;
  layout: string | null;
  /** The rest of the question, as text that goes on after the name. */
  rest: string;
}

export interface Told {
  number: number;
  /** What was answered; null where it was not 200, or nothing came. */
  answer: unknown;
}

/** The server does not know the layout by its name: it is sent again. */
const UNKNOWN = 409;
let layout = "";
/** The name under which the server had the layout last. */
let sent = "";

async function asked({ path, token, name, rest }: Ask, whole: string | null): Promise<Response> {
  const withLayout = whole ? `"layout":${whole},` : "";
  return fetch(path, {
    method: "POST",
    headers: { "Content-Type": "application/json", "X-CSRFToken": token },
    body: `{"name":"${name}",${withLayout}${rest}`,
  });
}

/** `known` is the layout of this question: another may have come by when it is sent again. */
async function told(ask: Ask, known: string): Promise<unknown> {
  try {
    let response = await asked(ask, sent === ask.name ? null : known);
    if (response.status === UNKNOWN) response = await asked(ask, known);
    if (!response.ok) return null;
    sent = ask.name;
    return await response.json();
  } catch {
    return null;
  }
}

self.onmessage = async ({ data }: MessageEvent<Ask>) => {
  layout = data.layout ?? layout;
  const said: Told = { number: data.number, answer: await told(data, layout) };
  self.postMessage(said);
};
