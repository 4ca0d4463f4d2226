import { flushPromises, mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'

import { api, type Design, type Part, type Step } from '../api/client'
import { useJob } from '../stores/job'
import OutlineNodes from './OutlineNodes.vue'

const NODES = [
  { id: 'n1', at: [0, 0], middle: [50, 0] },
  { id: 'n2', at: [100, 0], middle: [100, 40] },
  { id: 'n3', at: [100, 80], middle: [50, 40] },
]
const PART = { id: 'body' } as Part
const STEP = { id: 'outline', nodes: NODES } as unknown as Step

/** One px a mm, y down. */
function shown() {
  setActivePinia(createPinia())
  const job = useJob()
  job.design = { id: 1 } as Design
  const placing = vi.spyOn(api, 'placing').mockResolvedValue({ edits: [{ verb: 'put', path: 'x' }] } as never)
  vi.spyOn(job, 'edit').mockResolvedValue(true)
  Element.prototype.setPointerCapture = () => {}
  const at = ([x, y]: readonly [number, number]) => [x, -y] as [number, number]
  const view = mount(OutlineNodes, { props: { part: PART, step: STEP, at, pxPerMm: 1 } })
  const pointer = async (name: string, kind: string, x: number, y: number) => {
    const target = view.findAll(`.${name}`)[0]!.element
    target.dispatchEvent(
      Object.assign(new MouseEvent(`pointer${kind}`, { clientX: x, clientY: y }), { pointerId: 1 }),
    )
    await flushPromises()
  }
  return { view, job, placing, pointer }
}

describe('nodes of a free outline', () => {
  beforeEach(() => vi.restoreAllMocks())

  it('are dragged on the grid, and the core makes edits of it', async () => {
    const { placing, pointer } = shown()
    await pointer('node', 'down', 0, 0)
    await pointer('node', 'move', 10.3, -5.4)
    await pointer('node', 'up', 10.3, -5.4)
    expect(placing.mock.lastCall![1]).toMatchObject({
      act: 'node-move',
      node: 'n1',
      dx: 10,
      dy: 5,
      steps: ['outline'],
    })
  })

  it('take one more at a click on an edge, and an edge bends where it is dragged', async () => {
    const { placing, pointer } = shown()
    await pointer('edge', 'down', 50, 0)
    await pointer('edge', 'up', 51, 0)
    expect(placing.mock.lastCall![1]).toMatchObject({ act: 'node-add', node: 'n1' })
    await pointer('edge', 'down', 50, 0)
    await pointer('edge', 'move', 50, 12.5)
    await pointer('edge', 'up', 50, 12.5)
    expect(placing.mock.lastCall![1]).toMatchObject({ act: 'node-bend', node: 'n1', dx: 0, dy: -12.5 })
  })

  it('go by keys: arrows move once they pause, Enter adds, and three stay', async () => {
    vi.useFakeTimers()
    const { view, job, placing } = shown()
    for (const key of ['ArrowRight', 'ArrowRight', 'ArrowUp'])
      await view.find('.node').trigger('keydown', { key })
    expect(placing).not.toHaveBeenCalled()
    await vi.runAllTimersAsync()
    expect(placing.mock.lastCall![1]).toMatchObject({ act: 'node-move', dx: 2, dy: 1 })
    await view.find('.edge').trigger('keydown', { key: 'Enter' })
    expect(placing.mock.lastCall![1]).toMatchObject({ act: 'node-add' })
    vi.mocked(job.edit).mockClear()
    await view.find('.node').trigger('keydown', { key: 'Delete' })
    expect(job.edit).not.toHaveBeenCalled()
    vi.useRealTimers()
  })
})
