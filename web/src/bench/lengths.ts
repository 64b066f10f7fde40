import type { Band, Check, Ruler } from "../api/types";

const INCH = 25.4;
const FOOT = 12 * INCH;
const UNITS: Record<string, number> = { mm: 1, cm: 10, m: 1000, in: INCH, ft: FOOT };
const LONGEST_TEXT = 40;
const VULGAR: Record<string, string> = Object.fromEntries(
  [..."½⅓⅔¼¾⅕⅖⅗⅘⅙⅚⅛⅜⅝⅞"].map((sign) => [sign, sign.normalize("NFKD").replace("\u2044", "/")]),
);
const NUMBER = String.raw`(?:\d+[ -]+\d+/\d+|\d+/\d+|\d+\.\d+|\d+|\.\d+)`;
const SINGLE = new RegExp(`^(-?)\\s*(${NUMBER})\\s*(mm|cm|m|in|ft)?$`);
const FEET_AND_INCHES = new RegExp(`^(-?)\\s*(${NUMBER})\\s*ft\\s*-?\\s*(${NUMBER})\\s*(?:in)?$`);
const GROUPED = /\d,\d+[.,]|\d\.\d+,|\d{1,3}( \d{3})+(?![\d/])/;
const EITHER = /(?<![\d.])[1-9]\d{0,2},\d{3}(?!\d)/;
const ANGLE =
  /^(-?)\s*(\d+(?:\.\d+)?|\.\d+)(?:\s+(\d+)\/([1-9]\d*))?\s*(?:°|deg|degrees?)?(?:\s*(\d+(?:\.\d+)?)\s*['′’])?$/;

export type Wrong =
  | "no_length"
  | "no_angle"
  | "too_many_digits"
  | "thousands"
  | "comma_or_thousands"
  | "fraction_in_mm";
/** What a text means: so many mm or degrees; else why it means nothing, and what it would be in inches where it asks for that. */
export type Meant = { value: number; wrong: null } | { value: null; wrong: Wrong; mm?: number };

const wrongly = (wrong: Wrong, mm?: number): Meant => ({ value: null, wrong, mm });

/** The value of `14`, `14.375`, `3/8`, `14 3/8` or `14-3/8`; null where it is divided by nothing. */
function number(digits: string): number | null {
  let total = 0;
  for (const piece of digits.split(/[ -]+/)) {
    const [over, below] = piece.split("/").map(Number) as [number, number | undefined];
    if (below === 0) return null;
    total += below === undefined ? over : over / below;
  }
  return total;
}

/** The text in one spelling: ft and in for the marks, `a b/c` for a fraction sign; commas stay. */
function plainly(text: string): string {
  let plain = text
    .replace(/[\s\u00a0\u2009\u202f]+/g, " ")
    .trim()
    .toLowerCase();
  plain = plain.replaceAll("\u2212", "-").replaceAll("\u2044", "/");
  for (const [sign, fraction] of Object.entries(VULGAR)) plain = plain.replaceAll(sign, ` ${fraction}`);
  plain = plain
    .replace(/''|["″”“]/g, " in")
    .replace(/['′’]/g, " ft")
    .replace(/(?:\b|(?<=\d))(inches|inch|ins)\b/g, "in")
    .replace(/(feet|foot)\b/g, "ft")
    .replace(/(millimet(er|re)s?)\b/g, "mm");
  return plain.replace(/\s+/g, " ").trim();
}

function readLength(text: string, ruler: Ruler): Meant {
  const written = plainly(text);
  if (GROUPED.test(written)) return wrongly("thousands");
  if (EITHER.test(written)) return wrongly("comma_or_thousands");
  const plain = written.replaceAll(",", ".");
  const both = FEET_AND_INCHES.exec(plain);
  if (both) {
    const [feet, inches] = [number(both[2] as string), number(both[3] as string)];
    if (feet === null || inches === null) return wrongly("no_length");
    return { value: (both[1] ? -1 : 1) * (feet * FOOT + inches * INCH), wrong: null };
  }
  const single = SINGLE.exec(plain);
  const size = single ? number(single[2] as string) : null;
  if (!single || size === null) return wrongly("no_length");
  const bare = !single[3] && (single[2] as string).includes("/") && ruler.unit === "mm";
  const sense = single[1] ? -1 : 1;
  if (bare) return wrongly("fraction_in_mm", sense * size * INCH);
  return { value: sense * size * (UNITS[single[3] ?? ruler.unit] as number), wrong: null };
}

function readAngle(text: string): Meant {
  const found = ANGLE.exec(text.trim().toLowerCase().replaceAll("\u2212", "-").replaceAll(",", "."));
  if (!found) return wrongly("no_angle");
  const value =
    Number(found[2]) + (found[3] ? Number(found[3]) / Number(found[4]) : 0) + Number(found[5] ?? 0) / 60;
  return { value: found[1] ? -value : value, wrong: null };
}

/** A typed length in mm, a typed angle in degrees. The grammar is the core's (`units/lengths`, `units/angles`): a test holds both against one table. */
export function read(text: string, unit: "mm" | "deg", ruler: Ruler): Meant {
  if (text.length > LONGEST_TEXT) return wrongly("too_many_digits");
  return unit === "deg" ? readAngle(text) : readLength(text, ruler);
}

/** Why a text cannot be read, in the server's words. */
export function whyNot(text: string, meant: Meant & { wrong: Wrong }, ruler: Ruler): string {
  const said = ruler.refusals[meant.wrong] ?? "";
  return said
    .replaceAll("{text}", text.trim())
    .replaceAll("{point}", text.trim().replaceAll(",", "."))
    .replaceAll("{joined}", text.trim().replaceAll(",", ""))
    .replaceAll("{mm}", (meant.mm ?? 0).toFixed(1));
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
