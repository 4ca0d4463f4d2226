import { mount } from '@vue/test-utils'
import { beforeEach, describe, expect, it } from 'vitest'
import { nextTick } from 'vue'

import ColumnEdge from './ColumnEdge.vue'

const wide = () => document.documentElement.style.getPropertyValue('--ledger')

describe('the edge of the ledger', () => {
  beforeEach(() => localStorage.clear())

  it('makes it wider by keys, within bounds, and brings back the usual width', async () => {
    const edge = mount(ColumnEdge, { attachTo: document.body }).find('[role="separator"]')
    expect(wide()).toBe('')
    await edge.trigger('keydown', { key: 'ArrowLeft' })
    await nextTick()
    expect(wide()).toBe('18rem') // jsdom has no layout: from nothing it is the least
    await edge.trigger('keydown', { key: 'Home' })
    await nextTick()
    expect(wide()).toBe('')
  })
})
