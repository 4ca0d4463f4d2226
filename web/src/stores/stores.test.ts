import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'

import { api, Problem, type Design, type News, type Proof } from '../api/client'
import { changedBetween } from './changed'
import { useJob } from './job'

/** A design with just what the stores look at. */
function design(moves: number, width: number, path = 'M0 0'): Design {
  const row = { key: 'width', value: width, word: '' }
  return {
    id: 1,
    moves,
    ledger: { job: [row] },
    parts: [{ id: 'front', path }],
    route: [],
    boards: [{ id: 'main', basis: {} }],
    revision: moves,
  } as unknown as Design
}

const refusal = (code: string, field = '') =>
  new Problem(code, 'why', 'fix', field, code === 'changed-elsewhere' ? 409 : 422)

describe('what an edit changed', () => {
  it('names old values and moved parts', () => {
    const changed = changedBetween(design(1, 150), design(2, 160, 'M1 1'))
    expect(changed.figures.get('job/width')?.value).toBe(150)
    expect([...changed.parts]).toEqual(['front'])
  })

  it('leaves out what no caliper could tell', () => {
    expect(changedBetween(design(1, 150), design(2, 150.00001)).figures.size).toBe(0)
  })
})

describe('the open job', () => {
  beforeEach(() => {
    setActivePinia(createPinia())
    vi.restoreAllMocks()
    vi.spyOn(api, 'proof').mockRejectedValue(refusal('none'))
    vi.spyOn(api, 'design').mockResolvedValue(design(1, 150))
  })

  it('shows the new result and what changed', async () => {
    const job = useJob()
    await job.open(1)
    vi.spyOn(api, 'edit').mockResolvedValue(design(2, 160))
    expect(await job.put('answers/width', '160')).toBe(true)
    expect(job.design?.moves).toBe(2)
    expect(job.changed.figures.get('job/width')?.value).toBe(150)
  })

  it('keeps the last good result when an edit is refused, and the problem at its field', async () => {
    const job = useJob()
    await job.open(1)
    vi.spyOn(api, 'edit').mockRejectedValue(refusal('not-a-length', 'answers/width'))
    expect(await job.put('answers/width', 'x')).toBe(false)
    expect(job.design?.moves).toBe(1)
    expect(job.problemAt('answers/width')?.fix).toBe('fix')
    expect(job.problemAt('answers/depth')).toBeNull()
  })

  it('sends edits one after the other, each on what the last one gave', async () => {
    const job = useJob()
    await job.open(1)
    const edit = vi.spyOn(api, 'edit').mockImplementation(async (held) => design(held.moves + 1, 150))
    await Promise.all(['1', '2', '3'].map((width) => job.put('answers/width', width)))
    expect(edit.mock.calls.map(([held]) => held.moves)).toEqual([1, 2, 3])
  })

  it('sends what waited in line to the job that it was typed in, though another is open by then', async () => {
    const job = useJob()
    await job.open(1)
    let answer!: () => void
    const held = new Promise<void>((done) => (answer = done))
    const edit = vi.spyOn(api, 'edit').mockImplementation(async (at) => {
      await held
      return { ...design(at.moves + 1, 150), id: at.id }
    })
    const both = [job.put('answers/width', '160'), job.put('answers/depth', '90')]
    vi.spyOn(api, 'design').mockResolvedValue({ ...design(7, 99), id: 2 })
    await job.open(2)
    answer()
    await Promise.all(both)
    expect(edit.mock.calls.map(([at]) => at.id)).toEqual([1, 1])
    expect([job.design?.id, job.design?.moves]).toEqual([2, 7])
  })

  it('takes what changed into what it holds, and asks for all where that does not go', async () => {
    const job = useJob()
    await job.open(1)
    const told = { since: job.design!.revision, plain: { moves: 2, name: 'Vials' }, lists: {} }
    vi.spyOn(api, 'edit').mockResolvedValue(told)
    await job.put('name', 'Vials')
    expect([job.design?.name, job.design?.moves]).toEqual(['Vials', 2])
    vi.spyOn(api, 'edit').mockResolvedValue({ ...told, since: 99 })
    vi.spyOn(api, 'design').mockResolvedValue(design(3, 170))
    await job.put('name', 'Trays')
    expect(job.design?.moves).toBe(3)
  })

  it('keeps an edit that another window overtook until the maker chooses', async () => {
    const job = useJob()
    await job.open(1)
    vi.spyOn(api, 'edit')
      .mockRejectedValueOnce(refusal('changed-elsewhere'))
      .mockResolvedValue(design(6, 160))
    await job.put('answers/width', '160')
    expect(job.conflict?.edits).toEqual([{ verb: 'put', path: 'answers/width', value: '160' }])
    vi.spyOn(api, 'design').mockResolvedValue(design(5, 140))
    await job.saveMine()
    expect(job.conflict).toBeNull()
    const [held, edits] = vi.mocked(api.edit).mock.lastCall!
    expect(held.moves).toBe(5)
    expect(edits).toEqual([{ verb: 'put', path: 'answers/width', value: '160' }])
    expect(job.design?.moves).toBe(6)
  })

  it('shows the newest and says so where another window overtook an undo', async () => {
    const job = useJob()
    await job.open(1)
    vi.spyOn(api, 'undo').mockRejectedValueOnce(refusal('changed-elsewhere'))
    vi.spyOn(api, 'design').mockResolvedValue(design(5, 140))
    expect(await job.undo()).toBe(false)
    await vi.waitFor(() => expect(job.problem?.code).toBe('changed-elsewhere'))
    expect(job.design?.moves).toBe(5)
  })

  it('takes a proof only for the state that is shown', async () => {
    const job = useJob()
    const proof = (moves: number) => ({ moves, route: [{ key: 'prove' }] }) as unknown as Proof
    vi.spyOn(api, 'proof').mockResolvedValue(proof(7))
    await job.open(1)
    expect(job.proof).toBeNull()
    vi.spyOn(api, 'proof').mockResolvedValue(proof(2))
    vi.spyOn(api, 'edit').mockResolvedValue(design(2, 160))
    await job.put('answers/width', '160')
    await vi.waitFor(() => expect(job.route).toHaveLength(1))
  })

  it('looks for news of the workshop once a pause, and anew when it is opened again', async () => {
    const news = vi.spyOn(api, 'news').mockResolvedValue([{ of: 'board', id: 7, board: 'main' } as News])
    const job = useJob()
    await job.open(1)
    await vi.waitFor(() => expect(job.pauses).toBe(1))
    await Promise.all([job.lookForNews(), job.lookForNews()])
    expect(news).toHaveBeenCalledTimes(1)
    expect(job.news.map(({ id }) => id)).toEqual([7])
    await job.open(1)
    await vi.waitFor(() => expect(job.pauses).toBe(2))
    await job.lookForNews()
    expect(news).toHaveBeenCalledTimes(2)
  })
})
