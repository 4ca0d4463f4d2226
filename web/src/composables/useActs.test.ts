import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'

import type { Design, Edit } from '../api/client'
import { useJob } from '../stores/job'
import { useActs } from './useActs'

vi.mock('vue-router', () => ({ useRouter: () => ({ push: vi.fn() }) }))

const step = (id: string) => ({ id, title: id, on: true, document: { id, kind: 'shape' } })
const part = (id: string) => ({ id, title: id, board: 'main', steps: [step('blank'), step('hole-1')] })
const DESIGN = {
  parts: [part('front'), part('back'), part('base')],
  joints: [{ id: 'front-back', first: { placement: 'f-1' }, second: { placement: 'b-1' } }],
  placements: [
    { id: 'f-1', part: 'front' },
    { id: 'b-1', part: 'back' },
  ],
} as unknown as Design

describe('what can be done', () => {
  let edits: Edit[]
  beforeEach(() => {
    setActivePinia(createPinia())
    const job = useJob()
    job.design = DESIGN
    edits = []
    vi.spyOn(job, 'edit').mockImplementation(async (...given) => {
      edits.push(...given)
      return true
    })
  })

  const run = (name: string) =>
    useActs()
      .ofSelected()
      .find((act) => act.name === name)!
      .run()
  const names = () => useActs().ofSelected().map((act) => act.name) // prettier-ignore

  it('with nothing selected is nothing', () => expect(names()).toEqual([]))

  it('with a part: a copy behind it, another place in the list, or none of it', async () => {
    const job = useJob()
    job.pick('part', 'back')
    await run('Duplicate')
    expect(edits.at(-1)).toMatchObject({ verb: 'put', path: 'parts/back-1', after: 'back' })
    job.pick('part', 'base')
    await run('Move up')
    expect(edits.at(-1)).toEqual({ verb: 'move', path: 'parts/base', after: 'front' })
    expect(
      useActs()
        .ofSelected()
        .find(({ name }) => name === 'Move down')?.disabled,
    ).toBe(true)
    await run('Remove')
    expect(edits.at(-1)).toEqual({ verb: 'drop', path: 'parts/base' })
    expect(job.selected).toBe('')
  })

  it('with a step: its copy is selected, and its part once it is removed', async () => {
    const job = useJob()
    job.pick('step', 'front', 'hole-1')
    await run('Duplicate')
    expect(edits.at(-1)).toMatchObject({ path: 'parts/front/steps/hole-2', after: 'hole-1' })
    expect(job.picked).toMatchObject({ part: 'front', step: 'hole-2' })
    job.pick('step', 'front', 'hole-1')
    await run('Switch off')
    expect(edits.at(-1)).toEqual({ verb: 'switch', path: 'parts/front/steps/hole-1', value: false })
    await run('Remove')
    expect(job.selected).toBe('part:front')
  })

  it('with a joint: its members change places, and either covers the other without it', async () => {
    useJob().pick('joint', 'front-back')
    expect(names().slice(-2)).toEqual(['Remove, front covers', 'Remove, back covers'])
    await run('Swap first and second')
    expect(edits.map(({ value }) => value)).toEqual([{ placement: 'b-1' }, { placement: 'f-1' }])
  })
})
