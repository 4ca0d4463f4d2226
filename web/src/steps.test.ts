import { describe, expect, it } from 'vitest'

import type { FieldInfo } from './api/client'
import { asked, freeName, operationsFor, typed } from './steps'

const info = (name: string) =>
  ({ name, title: name, kind: 'length', optional: true, help: '', choices: [], default: '' }) as FieldInfo
const FIELDS = ['does', 'operation', 'x', 'depth', 'side', 'face', 'scale'].map(info)
const names = (step: Record<string, unknown>) => asked(FIELDS, step).map(({ name }) => name)

describe('new names', () => {
  it('are called by a name that is free', () => {
    expect(freeName('hole', [])).toBe('hole-1')
    expect(freeName('hole', ['hole-1', 'hole-3'])).toBe('hole-2')
  })
})

describe('questions of a step', () => {
  it('are those that count for what it does', () => {
    expect(names({ does: 'cut', shape: { kind: 'disc' } })).toEqual(['does', 'x', 'side', 'scale'])
    expect(names({ does: 'mark', operation: 'pocket', shape: { kind: 'disc' } })).toEqual([
      'does', 'operation', 'x', 'depth', 'side', 'face', 'scale',
    ]) // prettier-ignore
    expect(names({ does: 'mark', shape: { kind: 'line' } })).toEqual(['does', 'operation', 'x', 'face'])
  })

  it('offer no through-cut as a mark, and no pocket along a line', () => {
    const operations = { score: 'Score', pocket: 'Pocket', cut: 'Cut' }
    expect(operationsFor({ shape: { kind: 'line' } }, operations)).toEqual([
      { value: 'score', label: 'Score' },
    ])
    expect(operationsFor({ shape: { kind: 'disc' } }, operations)).toHaveLength(2)
  })

  it('show lengths as typed, with their unit', () => {
    expect(typed('width/2')).toEqual({ text: 'width/2', unit: 'mm' })
    expect(typed({ text: '1/4', unit: 'in' })).toEqual({ text: '1/4', unit: 'in' })
    expect(typed(undefined)).toEqual({ text: '', unit: 'mm' })
    expect(typed(0)).toEqual({ text: '0', unit: 'mm' })
  })
})
