import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'

import DrawingFrame from './DrawingFrame.vue'

/** A browser says the size of things; this one is told. */
class Observer {
  constructor(private readonly tell: (entries: unknown[]) => void) {}
  observe(): void {
    this.tell([{ contentRect: { width: 800, height: 600 } }])
  }
  disconnect(): void {}
}

describe('a drawing', () => {
  beforeEach(() => {
    setActivePinia(createPinia())
    vi.stubGlobal('ResizeObserver', Observer)
  })

  async function drawing(box: [number, number, number, number] = [0, 0, 600, 400]) {
    const view = mount(DrawingFrame, { props: { box, label: 'Sheet 1' }, attachTo: document.body })
    await view.vm.$nextTick()
    const svg = view.find('.frame > svg')
    const transform = () => svg.find('g').attributes('transform')!
    return { view, svg, transform, scale: () => Number(/matrix\((\S+)/.exec(transform())![1]) }
  }

  it('shows its whole box, with y up', async () => {
    const { transform, scale } = await drawing()
    expect(scale()).toBeCloseTo((800 - 48) / 600)
    expect(Number(transform().split(' ')[3])).toBeCloseTo(-scale())
  })

  it('zooms and pans by keys, and shows all again with 0', async () => {
    const { svg, transform, scale } = await drawing()
    const before = transform()
    const first = scale()
    await svg.trigger('keydown', { key: '+' })
    expect(scale()).toBeCloseTo(first * 1.25)
    await svg.trigger('keydown', { key: '-' })
    expect(scale()).toBeCloseTo(first)
    await svg.trigger('keydown', { key: 'ArrowLeft' })
    expect(transform()).not.toBe(before)
    await svg.trigger('keydown', { key: '0' })
    expect(transform()).toBe(before)
  })

  it('leaves the platform’s own key combinations alone', async () => {
    const { svg, transform } = await drawing()
    const before = transform()
    await svg.trigger('keydown', { key: '+', ctrlKey: true })
    expect(transform()).toBe(before)
  })

  it('zooms by the wheel', async () => {
    const { svg, scale } = await drawing()
    const first = scale()
    await svg.trigger('wheel', { deltaY: -400, clientX: 10, clientY: 10 })
    expect(scale()).toBeGreaterThan(first)
  })

  it('pinches with two fingers', async () => {
    const { svg, scale } = await drawing()
    const first = scale()
    const finger = (id: number, x: number) => ({
      pointerId: id,
      clientX: x,
      clientY: 100,
      pointerType: 'touch',
    })
    await svg.trigger('pointerdown', finger(1, 100))
    await svg.trigger('pointerdown', finger(2, 200))
    await svg.trigger('pointermove', finger(2, 300))
    expect(scale()).toBeCloseTo(first * 2)
  })

  it('follows its content until the maker moves it', async () => {
    const { view, svg, transform } = await drawing()
    const before = transform()
    await view.setProps({ box: [0, 0, 300, 200] })
    expect(transform()).not.toBe(before)
    await svg.trigger('keydown', { key: '+' })
    const moved = transform()
    await view.setProps({ box: [0, 0, 100, 100] })
    expect(transform()).toBe(moved)
  })

  it('has a scale bar in the maker’s unit', async () => {
    const { view } = await drawing()
    expect(view.find('.bar').text()).toBe('100 mm')
  })
})
