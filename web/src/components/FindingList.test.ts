import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'

import type { Finding } from '../api/client'
import FindingList from './FindingList.vue'

const twice = (n: number, place: [number, number] | null = [n, 0]) =>
  ({ code: 'doubled', severity: 'stop', why: `Path ${n} is doubled.`, fix: `Delete one of ${n} and ${n + 1}.`, place }) as Finding // prettier-ignore
const open = {
  code: 'open',
  severity: 'look',
  why: 'Path 3 is open.',
  fix: 'Close it.',
  place: null,
} as Finding

describe('findings', () => {
  beforeEach(() => setActivePinia(createPinia()))

  it('that say the same stand together, the rest of them folded', () => {
    const view = mount(FindingList, {
      props: { findings: [twice(1), twice(5), open, twice(9)], onShow: vi.fn() },
    })
    const groups = view.findAll('section > ul > li')
    expect(groups.map((group) => group.find('p').text().replace(/\s+/g, ' '))).toEqual([
      'Path 1 is doubled. 3 like this',
      'Path 3 is open.',
    ])
    expect(groups[0]!.findAll('details li').map((one) => one.text())).toEqual([
      'Path 5 is doubled. Show the place',
      'Path 9 is doubled. Show the place',
    ])
  })

  it('offer a place only where they have one', async () => {
    const show = vi.fn()
    const view = mount(FindingList, { props: { findings: [open, twice(1)], onShow: show } })
    const groups = view.findAll('section > ul > li')
    expect(groups[0]!.find('button').exists()).toBe(false)
    await groups[1]!.find('button').trigger('click')
    expect(show).toHaveBeenCalledWith(twice(1))
  })
})
