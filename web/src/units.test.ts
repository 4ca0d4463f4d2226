import { describe, expect, it } from 'vitest'

import {
  editText,
  figuresOnly,
  inUnit,
  lengthText,
  MM_PER_INCH,
  shortText,
  splitLengths,
  withinText,
} from './units'
import lists from '../../tests/files/pasted-lists.json'

describe('lengths', () => {
  it('an inch is 25.4 mm (International yard and pound agreement, 1959)', () => {
    expect(MM_PER_INCH).toBe(25.4)
    expect(lengthText(25.4, 'in')).toBe('1.0000')
  })

  it('show what a caliper shows', () => {
    expect(lengthText(3.06, 'mm')).toBe('3.06')
    expect(lengthText(3.06, 'in')).toBe('0.1205')
    expect(shortText(150, 'mm')).toBe('150')
    expect(shortText(3.0607, 'mm')).toBe('3.061')
  })

  it('never show a minus zero', () => {
    expect(lengthText(-0.0001, 'mm')).toBe('0.00')
  })
})

describe('sentences of the core', () => {
  const sentence = 'An edge of 25.4 mm has no room for three fingers of 9.144 mm.'

  it('are shown in the maker’s unit', () => {
    expect(inUnit(sentence, 'mm')).toBe(sentence)
    expect(inUnit(sentence, 'in')).toBe('An edge of 1 in has no room for three fingers of 0.36 in.')
  })

  it('leave other words alone', () => {
    expect(inUnit('3 mmx and 4 fingers', 'in')).toBe('3 mmx and 4 fingers')
  })

  it('lose the unit where a column says it', () => {
    expect(figuresOnly('slot 3.08 mm - kerf 0.14 mm', 'mm')).toBe('slot 3.08 - kerf 0.14')
    expect(figuresOnly('half of -25.4 mm', 'in')).toBe('half of -1')
  })
})

describe('a field opened for editing', () => {
  it('shows what was typed, with its unit if another is shown now', () => {
    expect(editText('150', 'mm', 'mm')).toBe('150')
    expect(editText('150', 'mm', 'in')).toBe('150 mm')
    expect(editText('width/3 + 2 mm', 'mm', 'in')).toBe('width/3 + 2 mm')
    expect(editText('6.5', 'in', 'mm')).toBe('6.5 in')
  })
})

describe('pasted lists', () => {
  it.each(lists.lists)('$pasted comes apart as in the core', ({ pasted, lengths }) => {
    expect(splitLengths(pasted)).toEqual(lengths)
  })
})

describe('how far a length may be off', () => {
  it('has the two digits that it is worth, in either unit', () => {
    expect([0.00091, 0.0124, 0.6, 1.24, 0].map((mm) => withinText(mm, 'mm'))).toEqual([
      '± 0.00091', '± 0.012', '± 0.60', '± 1.2', '± 0',
    ]) // prettier-ignore
    expect(withinText(0.0009, 'in')).toBe('± 0.000035')
    expect(inUnit('a kerf of 0.14 mm ± 0.0009 mm', 'in')).toBe('a kerf of 0.0055 in ± 0.000035 in')
  })
})
