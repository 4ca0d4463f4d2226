import { describe, expect, it } from 'vitest'

import {
  areaText,
  dateText,
  editText,
  figuresOnly,
  fractionText,
  lengthText,
  massText,
  MM_PER_INCH,
  roundedText,
  sentenceText,
  shortText,
  signedText,
  splitLengths,
  withinText,
  type Style,
  type Unit,
} from './units'
import lists from '../../tests/files/pasted-lists.json'
import sentences from '../../tests/files/sentences.json'
import typedUnits from '../../tests/files/typed-units.json'

const MM: Style = { unit: 'mm', locale: 'en-GB', finest: 0 }
const IN: Style = { ...MM, unit: 'in' }

describe('lengths', () => {
  it('an inch is 25.4 mm (International yard and pound agreement, 1959)', () => {
    expect(MM_PER_INCH).toBe(25.4)
    expect(lengthText(25.4, IN)).toBe('1.0000')
  })

  it('show what a caliper shows', () => {
    expect(lengthText(3.06, MM)).toBe('3.06')
    expect(lengthText(3.06, IN)).toBe('0.1205')
    expect(shortText(150, MM)).toBe('150')
    expect(shortText(3.0607, MM)).toBe('3.061')
  })

  it('never show a minus zero, and a minus that is one', () => {
    expect(lengthText(-0.0001, MM)).toBe('0.00')
    expect(signedText(-0.08, MM, 2)).toBe('−0.08')
  })

  it('are fractions of an inch where they are one, as fine as was chosen', () => {
    const at = (finest: Style['finest']) => shortText(4.71875 * MM_PER_INCH, { ...IN, finest })
    expect([0, 8, 16, 32, 64].map((finest) => at(finest as Style['finest']))).toEqual([
      '4.7188', '4.7188', '4.7188', '4 23/32', '4 23/32',
    ]) // prettier-ignore
    expect(shortText(119.8, { ...IN, finest: 64 })).toBe('4.7165')
  })

  it('as fractions are the inches that they say', () => {
    for (let parts = -130; parts <= 130; parts++) {
      const text = fractionText(parts / 64, 64)!.replace('−', '-')
      const [, sign, whole, over, under] = /^(-?)(?:(\d+)(?: |$))?(?:(\d+)\/(\d+))?$/.exec(text)!
      const value = Number(whole ?? 0) + (over ? Number(over) / Number(under) : 0)
      expect(sign ? -value : value).toBe(parts / 64)
    }
  })
})

describe('numbers of other languages', () => {
  /** The browser's own Intl is the reference. */
  it.each(['en-GB', 'de-DE', 'fr-FR', 'sv-SE'])('are written as in %s', (locale) => {
    const format = new Intl.NumberFormat(locale, {
      minimumFractionDigits: 2,
      maximumFractionDigits: 2,
      useGrouping: false,
    })
    for (const value of [0, 0.14, 3.06, 1250.5, 12345.67])
      expect(roundedText(value, 2, { locale })).toBe(format.format(value))
    const day = new Date('2026-11-03T12:00').toLocaleDateString(locale, {
      day: 'numeric', month: 'short', year: 'numeric',
    }) // prettier-ignore
    expect(dateText('2026-11-03', { locale })).toBe(day)
  })

  it('are in sentences too, but not in names, and days as well', () => {
    const german = { ...MM, locale: 'de-DE' }
    expect(sentenceText('“MDF 3.2” measures 3.06 mm, found on 2026-11-03', german)).toBe(
      '“MDF 3.2” measures 3,06 mm, found on 3. Nov. 2026',
    )
    expect(sentenceText('clearance -0.021 mm to 0.061 mm, revision 12', german)).toBe(
      'clearance −0,021 mm to 0,061 mm, revision 12',
    )
  })
})

describe('areas and weights', () => {
  it('follow the unit (avoirdupois pound 453.59237 g and ounce a sixteenth of it, 1959)', () => {
    expect(areaText(64516, MM)).toBe('645.2 cm²')
    expect(areaText(64516, IN)).toBe('100.00 in²')
    expect(areaText(92903.04, IN, 'board')).toBe('1.00 ft²')
    expect(areaText(1e6, { ...MM, locale: 'de-DE' }, 'board')).toBe('1,000 m²')
    expect([massText(453.59237, IN), massText(28.349523125, IN)]).toEqual(['1.00 lb', '1.00 oz'])
    expect([massText(1234, MM), massText(84.54, MM)]).toEqual(['1.23 kg', '84.5 g'])
  })
})

describe('sentences of the core', () => {
  const sentence = 'An edge of 25.4 mm has no room for three fingers of 9.144 mm.'

  it('are shown in the maker’s unit', () => {
    expect(sentenceText(sentence, MM)).toBe(sentence)
    expect(sentenceText(sentence, IN)).toBe('An edge of 1 in has no room for three fingers of 0.36 in.')
    expect(sentenceText('12.7 mm/s', { ...IN, finest: 64 })).toBe('0.5 in/s')
  })

  it.each(sentences.sentences)(
    'are said as the core says them on paper: $said',
    ({ text, unit, finest, mark, said }) => {
      const style = { unit, finest, locale: mark === ',' ? 'de-DE' : 'en-GB' } as Style
      expect(sentenceText(text, style)).toBe(said)
    },
  )

  it('leave other words alone', () => {
    expect(sentenceText('3 mmx and 4 fingers', IN)).toBe('3 mmx and 4 fingers')
  })

  it('lose the unit where a column says it', () => {
    expect(figuresOnly('slot 3.08 mm − kerf 0.14 mm', MM)).toBe('slot 3.08 − kerf 0.14')
    expect(figuresOnly('half of -25.4 mm', IN)).toBe('half of −1')
  })
})

describe('a field opened for editing', () => {
  it('shows what was typed, with its unit if another is shown now', () => {
    expect(editText('150', 'mm', 'mm')).toBe('150')
    expect(editText('150', 'mm', 'in')).toBe('150 mm')
    expect(editText('width/3 + 2 mm', 'mm', 'in')).toBe('width/3 + 2 mm')
    expect(editText('6.5', 'in', 'mm')).toBe('6.5 in')
  })

  // The wrong state: 6 + 1/2 in, opened in mm and extended by + 50, was saved as 56.5 mm.
  it('keeps what was typed as long where another unit is shown, 500 times', () => {
    for (const { typed, unit, text } of typedUnits as { typed: string; unit: Unit; text: string }[]) {
      expect(editText(typed, unit, unit === 'in' ? 'mm' : 'in'), typed).toBe(text)
      expect(editText(typed, unit, unit)).toBe(typed)
    }
  })
})

describe('pasted lists', () => {
  it.each(lists.lists)('$pasted comes apart as in the core', ({ pasted, lengths }) => {
    expect(splitLengths(pasted)).toEqual(lengths)
  })
})

describe('how far a length may be off', () => {
  it('is never finer than the length itself is shown', () => {
    expect([0.00091, 0.0124, 0.6, 1.24, 0].map((mm) => withinText(mm, MM))).toEqual([
      '± 0.001', '± 0.012', '± 0.60', '± 1.2', '± 0',
    ]) // prettier-ignore
    expect(withinText(0.0009, IN)).toBe('± 0.0001')
    expect(sentenceText('a kerf of 0.14 mm ± 0.0009 mm', IN)).toBe('a kerf of 0.0055 in ± 0.0001 in')
  })
})
