import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'

import GapPanels from './GapPanels.vue'

const gap = { thin: 0.06, mean: 0.02, thick: -0.02, measured: true }
const readings = { thin: 3.02, mean: 3.06, thick: 3.1, board: 3.06 }

describe('the gap at three thicknesses', () => {
  beforeEach(() => setActivePinia(createPinia()))

  it('stands with its sign under each reading, and a press is drawn as one', async () => {
    const panels = mount(GapPanels, { props: { gap, ...readings } })
    const buttons = panels.findAll('button')
    expect(buttons.map((one) => one.find('b').text())).toEqual(['+0.060', '+0.020', '−0.020'])
    expect(panels.findAll('.press')).toHaveLength(1)
    expect(buttons[1]!.attributes('aria-pressed')).toBe('true')
    await buttons[2]!.trigger('click')
    expect(panels.emitted('look')).toEqual([[3.1]])
  })

  it('is not drawn where no board goes in by its thickness', () => {
    const panels = mount(GapPanels, { props: { gap: { ...gap, measured: false }, ...readings } })
    expect(panels.findAll('button')).toHaveLength(0)
  })

  it('is enlarged the same for all three, and never out of its panel', () => {
    const panels = mount(GapPanels, { props: { gap: { ...gap, thin: 0.9 }, ...readings } })
    const widths = panels.findAll('rect.inner').map((one) => Number(one.attributes('width')))
    expect(Math.min(...widths)).toBeGreaterThan(0)
    expect(widths[0]!).toBeLessThan(widths[1]!)
  })
})
