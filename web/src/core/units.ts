/** Lengths as people read and type them. Stored and sent in metres; worded as the sheet words them. */
import type { Me } from "../api/types";

/** The inch, in metres. */
export const INCH = 0.0254;

/** What somebody reads lengths in: the units, and the sizes of their own hand. */
export type Ruler = Pick<Me, "units" | "hand">;
type Hand = Me["hand"];

const EIGHTHS = ["", "⅛", "¼", "⅜", "½", "⅝", "¾", "⅞"];

/** A length without its unit sign for cm (the column says it), with ′ and ″ for feet and inches. */
export function lengthText(metres: number, ruler: Ruler): string {
  if (ruler.units === "cm") return (Math.round(metres * 1000) / 10 + 0).toFixed(1);
  const sign = metres < 0 ? "−" : "";
  if (ruler.units === "hand") {
    const text = handText(Math.abs(metres), ruler.hand);
    return text === "0 f" ? text : sign + text;
  }
  const eighths = Math.floor((Math.abs(metres) / INCH) * 8 + 0.5);
  const feet = Math.floor(eighths / 96);
  const rest = eighths % 96;
  const inches = `${Math.floor(rest / 8)}${EIGHTHS[rest % 8]}″`;
  return feet ? `${sign}${feet}′ ${inches}` : `${sign}${inches}`;
}

/** A length with its unit. */
export function lengthWithUnit(metres: number, ruler: Ruler): string {
  const text = lengthText(metres, ruler);
  return ruler.units === "cm" ? `${text} cm` : text;
}

/** A length of cable: in metres as cables are named, or as the ruler has it. */
export function cableText(metres: number, ruler: Ruler): string {
  return ruler.units === "cm" ? `${metres.toFixed(1)} m` : lengthText(metres, ruler);
}

/** What stands behind a column's name: the unit where the numbers themselves carry none. */
export function unitMark(ruler: Ruler): string {
  return ruler.units === "cm" ? ", cm" : "";
}

/** Three lengths stand side by side, or under each other where they are told in hands. */
export function threeAcross(ruler: Ruler): string {
  return ruler.units === "hand" ? "grid-cols-1" : "grid-cols-3";
}

/** How a length is typed in somebody's units. */
export function howToType(ruler: Ruler): string {
  if (ruler.units === "cm") return "Type centimetres, as 120.3";
  if (ruler.units === "ft-in") return "Type feet and inches, as 3' 11 3/8\"";
  return "Type hands, fist and fingers, as 6 h fist 2½ f";
}

/** Whole hands, then a fist if it fits, then halves of a finger; cards for a sliver. */
function handText(metres: number, hand: Hand): string {
  if (metres < hand.two_fingers_m / 8) {
    const cards = Math.floor(metres / hand.card_m + 0.5);
    return cards ? `${cards} card${cards === 1 ? "" : "s"}` : "0 f";
  }
  const hands = Math.floor(metres / hand.hand_m + 1e-9);
  const rest = metres - hands * hand.hand_m;
  const fist = rest >= hand.fist_m - 1e-9;
  const halves = Math.floor(2 * fingersOf(rest - (fist ? hand.fist_m : 0), hand) + 0.5);
  const said = hands ? [`${hands} h`] : [];
  if (fist) said.push("fist");
  if (halves || !said.length)
    said.push(`${Math.floor(halves / 2) || ""}${halves % 2 ? "½" : ""} f`);
  return said.join(" ");
}

/** Fingers side by side: two and three are measured, the rest goes on as the third does. */
function fingersOf(metres: number, hand: Hand): number {
  if (metres <= hand.two_fingers_m) return Math.max(metres, 0) / (hand.two_fingers_m / 2);
  return 2 + (metres - hand.two_fingers_m) / (hand.three_fingers_m - hand.two_fingers_m);
}

function metresOfFingers(fingers: number, hand: Hand): number {
  if (fingers <= 2) return (fingers * hand.two_fingers_m) / 2;
  return hand.two_fingers_m + (fingers - 2) * (hand.three_fingers_m - hand.two_fingers_m);
}

const HAND_PART = /^(?:(\d+(?:\.\d+)?)?\s*(½)?\s*)(hands?|h|fists?|fingers?|f|cards?)(?![a-z])\s*/i;

/** Metres of `6 h fist 2½ f`, `2 fingers`, `card`; null when it is not so typed. */
function parseHand(text: string, hand: Hand): number | null {
  let rest = text.trim();
  let metres = 0;
  while (rest) {
    const found = HAND_PART.exec(rest);
    if (!found) return null;
    const [all, whole, half, word] = found;
    const n = whole || half ? Number(whole ?? 0) + (half ? 0.5 : 0) : 1;
    const kind = (word as string).toLowerCase();
    if (kind.startsWith("fi") && kind.startsWith("fist")) metres += n * hand.fist_m;
    else if (kind.startsWith("f")) metres += metresOfFingers(n, hand);
    else if (kind.startsWith("h")) metres += n * hand.hand_m;
    else metres += n * hand.card_m;
    rest = rest.slice(all.length);
  }
  return text.trim() ? metres : null;
}

const FRACTION = /^(?:(\d+(?:\.\d+)?)\s*)?(?:(\d+)\/(\d+)|([⅛¼⅜½⅝¾⅞]))?$/;

function inchesOf(text: string): number | null {
  const found = FRACTION.exec(text.trim());
  if (!found || text.trim() === "") return null;
  const [, whole, top, under, glyph] = found;
  const part = glyph ? EIGHTHS.indexOf(glyph) / 8 : top ? Number(top) / Number(under) : 0;
  return Number(whole ?? 0) + part;
}

/** Metres from what somebody typed: `120.3`, `1.2 m`, `4' 2 1/2"`, `50 in`; null when unreadable. */
export function parseLength(text: string, ruler: Ruler): number | null {
  const plain = text.trim().replace(",", ".").replace(/[′’]/g, "'").replace(/[″”]/g, '"');
  const metric = /^(-?\d+(?:\.\d+)?)\s*(cm|m|mm)$/.exec(plain);
  if (metric)
    return Number(metric[1]) * { cm: 0.01, m: 1, mm: 0.001 }[metric[2] as "cm" | "m" | "mm"];
  const sign = /^[-−]/.test(plain) ? -1 : 1;
  const bare = plain.replace(/^[-−]/, "");
  const feet = /^(\d+(?:\.\d+)?)\s*(?:'|ft)\s*(.*)$/.exec(bare);
  const rest = (feet ? (feet[2] ?? "") : bare).replace(/\s*("|in)$/, "");
  const byHand = parseHand(bare, ruler.hand);
  if (byHand !== null) return sign * byHand;
  if (feet || ruler.units === "ft-in" || rest !== bare) {
    const inches = rest === "" && feet ? 0 : inchesOf(rest);
    if (inches === null) return null;
    return sign * (Number(feet?.[1] ?? 0) * 12 + inches) * INCH;
  }
  if (ruler.units === "hand") return null;
  return /^\d+(\.\d+)?$/.test(bare) ? (sign * Number(bare)) / 100 : null;
}

export function msText(seconds: number): string {
  return (seconds * 1000).toFixed(2);
}

/** A number with its sign, if any is left of it at so many digits. */
export function signedText(value: number, digits: number, plus = "+"): string {
  const text = Math.abs(value).toFixed(digits);
  if (Number(text) === 0) return text;
  return `${value < 0 ? "−" : plus}${text}`;
}

export const dbText = (db: number) => signedText(db, 1);

const KNOWN_DB = 30;

/** The sum of two: what cancels on paper leaves something in the air, and no more is known. */
export function sumText(db: number): string {
  if (Math.abs(db) <= KNOWN_DB) return dbText(db);
  return db < 0 ? `<−${KNOWN_DB}` : `>+${KNOWN_DB}`;
}

const HEARING_HZ = 20000;

/** Where the first dip lies, or that there is none to be heard. */
export function dipText(hz: number | null): string {
  return hz === null || hz > HEARING_HZ ? "none to hear" : hzText(hz);
}

export function hzText(hz: number): string {
  return hz >= 1000 ? `${(hz / 1000).toFixed(1)} kHz` : `${hz.toFixed(0)} Hz`;
}
