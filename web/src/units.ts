/** Lengths come from the core in mm; here they are shown in the maker's unit. Nothing is computed with the result. */

export type Unit = 'mm' | 'in'

/** International yard and pound agreement, 1959. */
export const MM_PER_INCH = 25.4

/** Two decimals of a millimetre, or four of an inch: what a caliper shows. */
const DECIMALS: Record<Unit, number> = { mm: 2, in: 4 }

/** A length without its unit, for example "3.06" or "0.1205". `digits` overrides the decimals in mm. */
export function lengthText(mm: number, unit: Unit, digits = DECIMALS.mm): string {
  return roundedText(unit === 'mm' ? mm : mm / MM_PER_INCH, unit === 'mm' ? digits : DECIMALS.in)
}

/** Sums of decimals are off by less than this in binary: 3.955 - 0.14 is 3.8149999999999995. */
const NOISE = 1e-9

/** A number to that many decimals, halves away from zero, as the core rounds: the one rule for all figures that are shown. */
export function roundedText(value: number, digits: number): string {
  const text = (value + (value > -NOISE ? NOISE : -NOISE)).toFixed(digits)
  return Number(text) === 0 ? text.replace('-', '') : text
}

/** A length as short as it can be without losing anything a caliper shows: "150", "3.06", "5.9055". */
export function shortText(mm: number, unit: Unit): string {
  return String(Number(lengthText(mm, unit, 3)))
}

/** A clearance with its sign, for example "+0.020". */
export function signedText(mm: number, unit: Unit, digits = 3): string {
  return `${mm > 0 ? '+' : ''}${lengthText(mm, unit, digits)}`
}

/** How far a length may be off, with the two digits that such a number is worth: "± 0.0009", "± 0.000035". */
export function withinText(mm: number, unit: Unit): string {
  const value = unit === 'mm' ? mm : mm / MM_PER_INCH
  return `± ${value < 1e-6 ? '0' : Number(value.toPrecision(2)).toFixed(1 - Math.min(Math.floor(Math.log10(value)), 0))}`
}

/** A sentence of the core with every "<number> mm" in `unit`. */
export function inUnit(sentence: string, unit: Unit): string {
  if (unit === 'mm') return sentence
  return sentence
    .replace(/± (\d+(?:\.\d+)?) mm\b/g, (_, mm: string) => `${withinText(Number(mm), unit)} in`)
    .replace(/(-?\d+(?:\.\d+)?) mm\b/g, (_, mm: string) => `${shortText(Number(mm), unit)} in`)
}

/** A derivation with the unit left out: the column beside it says it. */
export function figuresOnly(sentence: string, unit: Unit): string {
  return inUnit(sentence, unit).replace(/(\d) (?:mm|in)\b/g, '$1')
}

/** What to put into a field for editing: as typed, its unit named if it is another than the one now shown. */
export function editText(typed: string, typedUnit: Unit, unit: Unit): string {
  const isPlain = /^\s*[\d.,]+\s*$/.test(typed)
  return typedUnit === unit || !isPlain ? typed : `${typed.trim()} ${typedUnit}`
}

/** A duration as people say it: "8 s", "1 min 35 s", "1 h 06 min". */
export function timeText(seconds: number): string {
  const whole = Math.round(seconds)
  if (whole < 60) return `${whole} s`
  const minutes = Math.floor(whole / 60)
  const two = (value: number) => String(value).padStart(2, '0')
  return minutes < 60
    ? `${minutes} min ${two(whole % 60)} s`
    : `${Math.floor(minutes / 60)} h ${two(minutes % 60)} min`
}

/** A pasted list one by one, as the core takes lists: lines, semicolons, commas or spaces part them; a unit behind the last alone
 * counts for all. A comma is the decimal mark where no point is. */
export function splitLengths(pasted: string): string[] {
  const text = pasted.includes('.') ? pasted.replaceAll(',', ';') : pasted
  const found = text
    .replace(/(?<![\d./,])(\d+)\s+(\d+\s*\/\s*\d+)/g, '$1\u00a0$2') // a whole and its fraction stay together
    .split(/[;\n\r\t]+|,(?=\s)/)
    .flatMap((chunk) => chunk.trim().split(/ +(?=[-+]?[.,]?\d)/))
    .map((one) => one.replaceAll('\u00a0', ' ').trim())
    .filter(Boolean)
  const unitOf = (one: string) => /[A-Za-z"″]+$/.exec(one)?.[0]
  const unit = unitOf(found.at(-1) ?? '')
  return unit && !found.slice(0, -1).some(unitOf)
    ? found.map((one, i) => (i < found.length - 1 ? `${one} ${unit}` : one))
    : found
}
