import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'

import type { Choices } from '../api/client'
import { useChoices } from './choices'

describe('what a format is called', () => {
  beforeEach(() => setActivePinia(createPinia()))

  it('is as the core says, and never nothing before it has said so', () => {
    const store = useChoices()
    expect(store.formatName('svg')).toBe('SVG')
    store.choices = {
      formats: [{ format: 'dxf-r12', title: 'DXF R12', about: '' }],
    } as Partial<Choices> as Choices
    expect(store.formatName('dxf-r12')).toBe('DXF R12')
  })
})
