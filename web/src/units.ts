/** Lengths come from the core in mm; here they are shown in the reader's unit and language. Nothing is computed with the result. */

export type Unit = 'mm' | 'in'

/** International yard and pound agreement, 1959. */
export const MM_PER_INCH = 25.4

/** Finest part of an inch that is shown as a fraction; 0 for decimals only. */
export type Finest = 0 | 8 | 16 | 32 | 64

/** How numbers are written for whoever reads: unit, language ("" for the browser's own), fractions of an inch. */
export interface Style {
  unit: Unit
  locale: string
  finest: Finest
}

/** Two decimals of a millimetre, or four of an inch: what a caliper shows. */
const DECIMALS: Record<Unit, number> = { mm: 2, in: 4 }

/** A length that is off a fraction by less than this shows as one: four decimals of an inch cannot tell them apart. */
const SAME_INCHES = 0.00005

/** A length without its unit, for example "3.06", "0.1205" or "4 23/32". `digits` overrides the decimals in mm. */
export function lengthText(mm: number, style: Style, digits = DECIMALS.mm): string {
  if (style.unit === 'mm') return roundedText(mm, digits, style)
  return fractionText(mm / MM_PER_INCH, style.finest) ?? roundedText(mm / MM_PER_INCH, DECIMALS.in, style)
}

/** "4 23/32" for inches that are one, down to `finest` parts of an inch; null for any other. */
export function fractionText(inches: number, finest: Finest): string | null {
  if (!finest) return null
  const parts = Math.round(inches * finest)
  if (Math.abs(inches - parts / finest) >= SAME_INCHES) return null
  const [whole, rest] = [Math.trunc(parts / finest), Math.abs(parts % finest)]
  const sign = parts < 0 ? '−' : ''
  if (!rest) return `${sign}${Math.abs(whole)}`
  const common = rest & -rest // the finest parts are a power of two: so is what they have in common
  const fraction = `${rest / common}/${finest / common}`
  return whole ? `${sign}${Math.abs(whole)} ${fraction}` : `${sign}${fraction}`
}

/** Sums of decimals are off by less than this in binary: 3.955 - 0.14 is 3.8149999999999995. */
const NOISE = 1e-9

const formats = new Map<string, Intl.NumberFormat>()

function formatOf(locale: string, least: number, most: number): Intl.NumberFormat {
  const key = `${locale} ${least} ${most}`
  const known = formats.get(key)
  if (known) return known
  const made = new Intl.NumberFormat(locale || undefined, {
    minimumFractionDigits: least,
    maximumFractionDigits: most,
    useGrouping: false,
    numberingSystem: 'latn',
  })
  formats.set(key, made)
  return made
}

/** A number to that many decimals, halves away from zero, as the core rounds: the one rule for all figures that are shown.
 * `least` decimals stay even if they are zeros. */
export function roundedText(
  value: number,
  digits: number,
  { locale }: Pick<Style, 'locale'>,
  least = digits,
): string {
  const text = formatOf(locale, least, digits).format(value + (value > -NOISE ? NOISE : -NOISE))
  return /[1-9]/.test(text) ? text.replace('-', '−') : text.replace(/[-−]/, '')
}

/** A length as short as it can be without losing anything a caliper shows: "150", "3.06", "5.9055". */
export function shortText(mm: number, style: Style): string {
  if (style.unit === 'mm') return roundedText(mm, 3, style, 0)
  return fractionText(mm / MM_PER_INCH, style.finest) ?? roundedText(mm / MM_PER_INCH, DECIMALS.in, style, 0)
}

/** A clearance with its sign, for example "+0.020". */
export function signedText(mm: number, style: Style, digits = 3): string {
  return `${mm > 0 ? '+' : ''}${lengthText(mm, style, digits)}`
}

/** How far a length may be off, never finer than what is shown of the length itself: "± 0.001", "± 0.0001". */
export function withinText(mm: number, style: Style): string {
  const value = style.unit === 'mm' ? mm : mm / MM_PER_INCH
  const finest = style.unit === 'mm' ? 3 : 4
  if (value < 1e-6) return '± 0'
  const digits = Math.min(1 - Math.min(Math.floor(Math.log10(value)), 0), finest)
  return `± ${roundedText(Math.max(Number(value.toPrecision(2)), 10 ** -finest), digits, style)}`
}

/** A sentence of the core with every "<number> mm" in the reader's unit, numbers and days as the reader writes them.
 * What stands in quotes is a name, and stays. */
export function sentenceText(sentence: string, style: Style): string {
  return sentence
    .split(/(“[^”]*”)/)
    .map((piece, i) => (i % 2 ? piece : spoken(piece, style)))
    .join('')
}

function spoken(piece: string, style: Style): string {
  const mark = roundedText(0.5, 1, style).charAt(1)
  return piece
    .replace(/± (\d+(?:\.\d+)?) mm\b/g, (_, mm: string) => `${withinText(Number(mm), style)} ${style.unit}`)
    .replace(/(?<![\d.,])(\d+(?:\.\d+)?) mm\/(s|min)\b/g, (whole, mm: string, time: string) =>
      style.unit === 'mm' ? whole : `${speedText(Number(mm) / MM_PER_INCH)} in/${time}`,
    )
    .replace(/(?<![\d.,])-?(\d+(?:\.\d+)?) mm\b/g, (whole, mm: string) => {
      const value = whole.startsWith('-') ? -Number(mm) : Number(mm)
      return style.unit === 'mm'
        ? `${whole.startsWith('-') ? '−' : ''}${localText(mm, mark)} mm`
        : `${shortText(value, style)} in`
    })
    .replace(/\b(\d{4}-\d\d-\d\d)(?:T[\d:.+Z-]*)?\b/g, (_, day: string) => dateText(day, style))
    .replace(/(?<![\d.])\d+\.\d+(?![\d.])/g, (number) => localText(number, mark))
}

/** A speed in another unit is worth three figures: "13.8", "118". */
function speedText(value: number): string {
  const digits = value > 0 ? Math.max(2 - Math.floor(Math.log10(value)), 0) : 0
  return roundedText(value, digits, { locale: 'en' }, 0)
}

const MM2_PER_IN2 = MM_PER_INCH ** 2
const G_PER_OZ = 28.349523125
const OZ_PER_LB = 16

/** An area with its unit: "84.5 cm²" or "13.1 in²"; of boards "0.125 m²" or "1.35 ft²". */
export function areaText(mm2: number, style: Style, of: 'part' | 'board' = 'part'): string {
  if (of === 'board')
    return style.unit === 'mm'
      ? `${roundedText(mm2 / 1e6, 3, style)} m²`
      : `${roundedText(mm2 / MM2_PER_IN2 / 144, 2, style)} ft²`
  return style.unit === 'mm'
    ? `${roundedText(mm2 / 100, 1, style)} cm²`
    : `${roundedText(mm2 / MM2_PER_IN2, 2, style)} in²`
}

/** A weight with its unit, avoirdupois beside inches: "84.5 g", "1.20 kg", "3.0 oz", "2.65 lb". */
export function massText(grams: number, style: Style): string {
  if (style.unit === 'mm')
    return grams >= 1000 ? `${roundedText(grams / 1000, 2, style)} kg` : `${roundedText(grams, 1, style)} g`
  const ounces = grams / G_PER_OZ
  return ounces >= OZ_PER_LB
    ? `${roundedText(ounces / OZ_PER_LB, 2, style)} lb`
    : `${roundedText(ounces, 2, style)} oz`
}

const localText = (number: string, mark: string) => number.replace('.', mark)

/** A derivation with the unit left out: the column beside it says it. */
export function figuresOnly(sentence: string, style: Style): string {
  return sentenceText(sentence, style).replace(/(\d) (?:mm|in)\b/g, '$1')
}

/** A day as people write it: "3 Nov 2026". */
export function dateText(iso: string, { locale }: Pick<Style, 'locale'>): string {
  const day = new Date(iso.length === 10 ? `${iso}T12:00` : iso)
  return day.toLocaleDateString(locale || undefined, { day: 'numeric', month: 'short', year: 'numeric' })
}

/** The time of a day that is today, else the day too: "20:31", "3 Nov 2026, 20:31". */
export function momentText(iso: string, { locale }: Pick<Style, 'locale'>, now = new Date()): string {
  const at = new Date(iso)
  const time = at.toLocaleTimeString(locale || undefined, { hour: '2-digit', minute: '2-digit' })
  return at.toDateString() === now.toDateString() ? time : `${dateText(iso, { locale })}, ${time}`
}

/** What to put into a field for editing: as typed, its unit named if it is another than the one now shown. */
export function editText(typed: string, typedUnit: Unit, unit: Unit): string {
  return typedUnit === unit || !typed.trim() ? typed : named(typed.trim(), typedUnit)
}

/** The parts of an inch on drawings. */
const DRAWN_PARTS = new Set(['2', '4', '8', '16', '32', '64'])

/** The same length whatever unit is set: a number, a sum of numbers, or each bare term beside names gets its unit. 4-3/4 is four and
 * three quarters in inches, as the core reads it, and a difference in mm. */
function named(typed: string, unit: Unit): string {
  const text = typed.replace(
    /(?<![\w.,])(\d+)-(\d+)\/(\d+)(?![\w.,])(?=\s*(in\b|"|″|[a-z])?)/g,
    (_, whole: string, over: string, under: string, after: string | undefined) => {
      const inches = after ? ['in', '"', '″'].includes(after) : unit === 'in'
      const spoken = inches && DRAWN_PARTS.has(under) && Number(over) < Number(under)
      return `${whole} ${spoken ? '' : '- '}${over}/${under}`
    },
  )
  if (/^(\d+\s+)?\d+\s*\/\s*\d+$|^[\d.,]+$/.test(text)) return `${text} ${unit}`
  if (!/[a-zA-Z"'°]/.test(text)) return `(${text}) ${unit}`
  return terms(text)
    .map((term) => (/^\s*[+-]?\s*$/.test(term) ? term : namedTerm(term, unit)))
    .join('')
}

/** Terms and the signs between them, at the outermost level. */
function terms(text: string): string[] {
  const found = ['']
  let depth = 0
  for (const one of text) {
    if (one === '(') depth++
    if (one === ')') depth--
    if (!depth && (one === '+' || one === '-')) found.push(one, '')
    else found[found.length - 1] += one
  }
  return found
}

function namedTerm(term: string, unit: Unit): string {
  const bare = term.trim()
  if (!/[a-zA-Z"'°]/.test(bare)) return term.replace(bare, `(${bare}) ${unit}`)
  // What stands beside a name in brackets, or in a list, is a sum of its own; angles and areas are none.
  return term.replace(/(\w*)\(([^()]*)\)/g, (all: string, called: string, inner: string) => {
    if (['sin', 'cos', 'sqrt'].includes(called)) return all
    const parts = inner.split(/([,;])/)
    const sums = parts.some((part) => /[a-zA-Z"'°]/.test(part)) || called !== ''
    const inside = parts.map((part) =>
      /[,;]/.test(part) || !part.trim() ? part : part.replace(part.trim(), named(part.trim(), unit)),
    )
    return sums ? `${called}(${inside.join('')})` : all
  })
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
