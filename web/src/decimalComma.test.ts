import { afterEach, describe, expect, it } from 'vitest'

import { readDecimalCommas, withPoint } from './decimalComma'

/** By the language's own way of writing a thousand and a half, as Intl has it (Unicode CLDR). */
const LANGUAGES = ['en-GB', 'en-US', 'de-DE', 'fr-FR', 'nl-NL', 'pl-PL', 'sv-SE', 'ja-JP']

describe('three digits behind a comma', () => {
  it.each(LANGUAGES)('are decimals where %s writes them so', (locale) => {
    const decimal = new Intl.NumberFormat(locale).formatToParts(1.5).find(({ type }) => type === 'decimal')!
    expect(withPoint('1,234', { locale })).toBe(decimal.value === ',' ? '1.234' : '1,234')
    expect(withPoint('8,255 mm + 3,055', { locale })).toBe(
      decimal.value === ',' ? '8.255 mm + 3.055' : '8,255 mm + 3,055',
    )
  })

  it.each(['1,234,567', '1,234.5', 'max(1,200)', '0,145', '3,06', '12345,678', '3.055'])(
    'stay in %s',
    (text) => {
      expect(withPoint(text, { locale: 'de-DE' })).toBe(text)
    },
  )
})

describe('a field', () => {
  afterEach(() => (document.body.innerHTML = ''))

  it('for figures is read so while it is typed in, and one for words is not', () => {
    readDecimalCommas(() => ({ locale: 'de-DE' }))
    document.body.innerHTML = '<div class="figure"><input id="a"></div><input id="b">'
    const seen: string[] = []
    for (const id of ['a', 'b']) {
      const field = document.getElementById(id) as HTMLInputElement
      field.addEventListener('input', () => seen.push(field.value))
      field.value = '3,055'
      field.dispatchEvent(new Event('input', { bubbles: true }))
    }
    expect(seen).toEqual(['3.055', '3,055'])
  })
})
