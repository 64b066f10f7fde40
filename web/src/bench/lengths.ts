import type { Band, Check, Ruler } from "../api/types";

const INCH = 25.4;
const FOOT = 12 * INCH;
const UNITS: Record<string, number> = { mm: 1, cm: 10, m: 1000, in: INCH, '"': INCH, "″": INCH };
const NUMBER = /^(?:(\d+)[ -]+)?(\d+)\/(\d+)$|^(\d+(?:[.,]\d+)?|[.,]\d+)$/;

function number(text: string): number | null {
  const found = NUMBER.exec(text.trim());
  if (!found) return null;
  if (found[4]) return Number(found[4].replace(",", "."));
  const below = Number(found[3]);
  return below === 0 ? null : Number(found[1] ?? 0) + Number(found[2]) / below;
}

/** A typed length in mm, a typed angle in degrees; null where it cannot be read. The server reads the same and more. */
export function read(text: string, unit: "mm" | "deg", ruler: Ruler): number | null {
  const plain = text.trim().toLowerCase();
  if (unit === "deg") return number(plain.replace(/°$/, ""));
  const feet = /^(.+?)\s*(?:ft|'|′)\s*(.*?)\s*(?:in|"|″)?$/.exec(plain);
  if (feet) {
    const [whole, rest] = [number(feet[1] ?? ""), feet[2] ? number(feet[2]) : 0];
    return whole === null || rest === null ? null : whole * FOOT + rest * INCH;
  }
  const named = /^(.*?)\s*(mm|cm|m|in|"|″)?$/.exec(plain);
  const value = number(named?.[1] ?? "");
  return value === null ? null : value * (UNITS[named?.[2] ?? ruler.unit] ?? 1);
}

/** So many graduations as one would type them: `412`, `412.5`, `7 3/16`. */
export function graduations(count: number, ruler: Ruler): string {
  if (ruler.unit === "mm") return String(Number((count * ruler.graduation_mm).toFixed(3)));
  const whole = Math.floor(count / ruler.parts);
  let [over, below] = [count - whole * ruler.parts, ruler.parts];
  while (over > 0 && over % 2 === 0) [over, below] = [over / 2, below / 2];
  return over === 0 ? String(whole) : whole === 0 ? `${over}/${below}` : `${whole} ${over}/${below}`;
}

const FINEST_PARTS = 64;

/** By how much something is off, in a sentence. */
function off(by: number, unit: "mm" | "deg", ruler: Ruler): string {
  if (unit === "deg") return `${Number(by.toFixed(2))}°`;
  if (ruler.unit === "mm") return `${Number(by.toFixed(1))} mm`;
  const parts = Math.round((by / INCH) * FINEST_PARTS);
  return parts === 0
    ? "a hair"
    : `${graduations(parts, { ...ruler, parts: FINEST_PARTS, graduation_mm: INCH / FINEST_PARTS })}″`;
}

const gap = (mm: number, ruler: Ruler) =>
  ruler.unit === "mm" ? `${mm.toFixed(2)} mm` : `${(mm / INCH).toFixed(3)}″`;

/** A figure that was measured or planned, as a record tells it. */
export const amount = (value: number, unit: "mm" | "deg", ruler: Ruler): string =>
  unit === "deg"
    ? `${Number(value.toFixed(2))}°`
    : ruler.unit === "mm"
      ? `${Number(value.toFixed(2))} mm`
      : `${(value / INCH).toFixed(3)}″`;

export type Meaning = { verdict: Band["verdict"]; ask: boolean; text: string; slip: string };

/** What a reading means: the first of the prepared bands that holds it, its words with their figures put in. */
export function meaning(check: Check, value: number, ruler: Ruler): Meaning {
  const band = check.bands.find((b) => b.to === null || value <= b.to) as Band;
  const by = Math.abs(value - check.expected);
  const text = band.text
    .replaceAll("{off}", off(by, check.unit, ruler))
    .replaceAll("{half}", off(by / 2, check.unit, ruler))
    .replaceAll("{gap}", gap(by * check.opens, ruler));
  const slip = check.slips.find((s) => value >= s.above && value <= s.to);
  return { verdict: band.verdict, ask: band.ask, text, slip: slip?.text ?? "" };
}
