import { describe, expect, it } from 'vitest'

import type { FieldInfo } from './api/client'
import { asked, besideOthers, freeName, newStep, operationsFor, PURPOSES, typed, type Purpose } from './steps'

const PART = { box: [0, 0, 100, 60] as [number, number, number, number], corners: ['blank.top-left'] }
const info = (name: string) =>
  ({ name, title: name, kind: 'length', optional: true, help: '', choices: [], default: '' }) as FieldInfo
const FIELDS = ['does', 'operation', 'x', 'depth', 'side', 'face', 'scale'].map(info)
const names = (step: Record<string, unknown>) => asked(FIELDS, step).map(({ name }) => name)

describe('new steps', () => {
  it('are called by a name that is free', () => {
    expect(freeName('hole', [])).toBe('hole-1')
    expect(freeName('hole', ['hole-1', 'hole-3'])).toBe('hole-2')
  })

  it.each(Object.keys(PURPOSES) as Purpose[])('%s begins inside the part', (purpose) => {
    const step = newStep(purpose, PART, 'other')
    expect(step['kind']).toBeTruthy()
    for (const axis of ['x', 'y'] as const) {
      const at = Number(typed(step[axis] ?? '0').text)
      expect(at).toBeGreaterThanOrEqual(0)
      expect(at).toBeLessThanOrEqual(axis === 'x' ? 100 : 60)
    }
  })

  it('are mm whatever the page shows', () => {
    const hole = newStep('hole', PART) as { shape: { diameter: unknown } }
    expect(hole.shape.diameter).toEqual({ text: '8', unit: 'mm' })
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

describe('a second step at a place that is taken', () => {
  it('stands beside the first, and beside the second', () => {
    const hole = { kind: 'shape', x: { text: '50', unit: 'mm' }, y: { text: '30', unit: 'mm' } }
    const second = besideOthers(hole, [hole])
    expect(second['x']).toEqual({ text: '60', unit: 'mm' })
    expect(besideOthers(hole, [hole, second])['x']).toEqual({ text: '70', unit: 'mm' })
    expect(besideOthers(hole, [])).toEqual(hole)
    expect(besideOthers({ kind: 'grow' }, [hole])).toEqual({ kind: 'grow' })
  })
})
