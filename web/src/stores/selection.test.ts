import { describe, expect, it } from 'vitest'

import type { Design } from '../api/client'
import { pickOf, readPick, useSelection } from './selection'

const DESIGN = { parts: [{ id: 'front' }] } as unknown as Design

describe('what is selected', () => {
  it.each([
    ['part:front', { part: 'front', step: '', edge: '', joint: '' }],
    ['step:front/hole-1', { part: 'front', step: 'hole-1', edge: '', joint: '' }],
    ['edge:front/blank.left', { part: 'front', step: '', edge: 'blank.left', joint: '' }],
    ['joint:front-left', { part: '', step: '', edge: '', joint: 'front-left' }],
    ['', { part: '', step: '', edge: '', joint: '' }],
  ])('is read from “%s”', (selected, picked) => expect(readPick(selected)).toEqual(picked))

  it('of a step or an edge, is its part too', () => {
    const { part, pick } = useSelection(() => DESIGN)
    pick('step', 'front', 'hole-1')
    expect(part.value?.id).toBe('front')
    pick('joint', 'front-left')
    expect(part.value).toBeNull()
  })

  it('is unselected by selecting it again', () => {
    const { selected, toggle } = useSelection(() => DESIGN)
    toggle('part', 'front')
    expect(selected.value).toBe(pickOf('part', 'front'))
    toggle('part', 'front')
    expect(selected.value).toBe('')
  })
})
