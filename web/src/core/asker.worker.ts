/**
 * Asks what follows a hand, beside the page: what is drawn does not wait for what is sent and read.
 * The layout comes once, before the hand takes hold; after that only what moves.
 */
import { Mailbox } from "./mailbox";
import { OpenLine, type Reply } from "./openLine";

export interface Ask {
  number: number;
  path: string;
  token: string;
  /** Of the layout as it stood, which was told before. */
  name: string;
  /** The question as text, as it goes on after that. */
  rest: string;
  /** Its answer may be overtaken: it goes into the box, if there is one. */
  boxed: boolean;
}

/** The layout that is asked about from now on, as text. */
export interface Known {
  name: string;
  layout: string;
}

/** Where a line to the server can be opened. */
export interface Address {
  line: string;
}

export interface Told {
  number: number;
  /** What was answered; null where it was not 200, or nothing came. */
  answer: unknown;
}

/** Something lies in the box; said once, until that is heard. */
export type Look = "look";

/** The server does not know the layout by its name: it is sent again. */
const UNKNOWN = 409;
let layout = "";
/** The name under which the server had the layout last. */
let sent = "";
let box: Mailbox | null = null;
let line: OpenLine | null = null;

async function byRequest({ path, token }: Ask, text: string): Promise<Reply> {
  const response = await fetch(path, {
    method: "POST",
    headers: { "Content-Type": "application/json", "X-CSRFToken": token },
    body: text,
  });
  const bytes = new Uint8Array(await response.arrayBuffer());
  // Read here as well: something on the way can say 200 and be no answer.
  if (response.ok) read(bytes);
  return { status: response.status, bytes };
}

const utf8 = new TextDecoder();
const read = (bytes: Uint8Array): unknown => JSON.parse(utf8.decode(bytes));

async function asked(ask: Ask, whole: string | null): Promise<Reply> {
  const withLayout = whole ? `"layout":${whole},` : "";
  const text = `{"name":"${ask.name}",${withLayout}${ask.rest}`;
  return (await line?.ask(ask.path, text)) ?? byRequest(ask, text);
}

/** `known` is the layout of this question: another may have come by when it is sent again. */
async function told(ask: Ask, known: string): Promise<Told | null> {
  const { number } = ask;
  try {
    let reply = await asked(ask, sent === ask.name ? null : known);
    if (reply.status === UNKNOWN) reply = await asked(ask, known);
    if (reply.status !== 200) return { number, answer: null };
    sent = ask.name;
    if (box && ask.boxed && box.put(number, reply.bytes)) return null;
    return { number, answer: read(reply.bytes) };
  } catch {
    return { number, answer: null };
  }
}

self.onmessage = async ({ data }: MessageEvent<Ask | Known | Address | SharedArrayBuffer>) => {
  if ("line" in data) line = new OpenLine(data.line);
  else if ("layout" in data) {
    layout = data.layout;
    line?.begin();
  } else if ("number" in data) await answered(data);
  else box = new Mailbox(data);
};

async function answered(data: Ask): Promise<void> {
  const said: Told | Look | null = (await told(data, layout)) ?? (box?.call() ? "look" : null);
  if (said) self.postMessage(said);
}
