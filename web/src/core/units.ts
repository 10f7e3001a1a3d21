/** Lengths as people read and type them. Stored and sent in metres; worded as the sheet words them. */
import type { Units } from "../api/types";

const EIGHTHS = ["", "⅛", "¼", "⅜", "½", "⅝", "¾", "⅞"];

/** A length without its unit sign for cm (the column says it), with ′ and ″ for feet and inches. */
export function lengthText(metres: number, units: Units): string {
  if (units === "cm") return (Math.round(metres * 1000) / 10 + 0).toFixed(1);
  const sign = metres < 0 ? "−" : "";
  const eighths = Math.floor((Math.abs(metres) / 0.0254) * 8 + 0.5);
  const feet = Math.floor(eighths / 96);
  const rest = eighths % 96;
  const inches = `${Math.floor(rest / 8)}${EIGHTHS[rest % 8]}″`;
  return feet ? `${sign}${feet}′ ${inches}` : `${sign}${inches}`;
}

/** A length with its unit. */
export function lengthWithUnit(metres: number, units: Units): string {
  return units === "cm" ? `${lengthText(metres, units)} cm` : lengthText(metres, units);
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
export function parseLength(text: string, units: Units): number | null {
  const plain = text.trim().replace(",", ".").replace(/[′’]/g, "'").replace(/[″”]/g, '"');
  const metric = /^(-?\d+(?:\.\d+)?)\s*(cm|m|mm)$/.exec(plain);
  if (metric)
    return Number(metric[1]) * { cm: 0.01, m: 1, mm: 0.001 }[metric[2] as "cm" | "m" | "mm"];
  const sign = /^[-−]/.test(plain) ? -1 : 1;
  const bare = plain.replace(/^[-−]/, "");
  const feet = /^(\d+(?:\.\d+)?)\s*(?:'|ft)\s*(.*)$/.exec(bare);
  const rest = (feet ? (feet[2] ?? "") : bare).replace(/\s*("|in)$/, "");
  if (feet || units === "ft-in" || rest !== bare) {
    const inches = rest === "" && feet ? 0 : inchesOf(rest);
    if (inches === null) return null;
    return sign * (Number(feet?.[1] ?? 0) * 12 + inches) * 0.0254;
  }
  return /^\d+(\.\d+)?$/.test(bare) ? (sign * Number(bare)) / 100 : null;
}

export function msText(seconds: number): string {
  return (seconds * 1000).toFixed(2);
}

export function dbText(db: number): string {
  return `${db < 0 ? "−" : "+"}${Math.abs(db).toFixed(1)}`;
}

const HEARING_HZ = 20000;

/** Where the first dip lies, or that there is none to be heard. */
export function dipText(hz: number | null): string {
  return hz === null || hz > HEARING_HZ ? "none to hear" : hzText(hz);
}

export function hzText(hz: number): string {
  return hz >= 1000 ? `${(hz / 1000).toFixed(1)} kHz` : `${hz.toFixed(0)} Hz`;
}
