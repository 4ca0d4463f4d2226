import { flushPromises, mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'

import { api, Problem, type Changes, type Concerned, type Following } from '../api/client'
import TodayView from './TodayView.vue'

const job = (id: number, name: string, handed = false): Concerned => ({
  id, name, moves: 3, revision: 2, handed, said: ['Poplar ply measures 3.21 mm now, was 3.06 mm'],
}) // prettier-ignore
const following = (stays: Following['stays'] = null): Following => ({
  revision: 2, moves: 3, said: [], edits: [], changes: [], more: 0, stays,
}) // prettier-ignore
const followed = { since: 2, plain: { moves: 4, revision: 3 }, lists: {} } as unknown as Changes

async function shown(jobs: Concerned[]) {
  vi.spyOn(api, 'concerned').mockResolvedValue(jobs)
  const view = mount(TodayView, { global: { stubs: { TitleLine: true, RouterLink: true } } })
  await flushPromises()
  return view
}
type View = Awaited<ReturnType<typeof shown>>
const press = async (view: View, words: string, nth = 0) => {
  await view.findAll('button').filter((one) => one.text() === words)[nth]!.trigger('click') // prettier-ignore
  await flushPromises()
}
const groups = (view: View) => view.findAll('section h2').map((one) => one.text())

describe('jobs that follow the workshop', () => {
  beforeEach(() => {
    localStorage.clear()
    setActivePinia(createPinia())
    vi.restoreAllMocks()
  })

  it('stand apart where they were handed over, or would not fit', async () => {
    const stays = { code: 'stays', why: 'The tab falls out.', fix: 'Choose a fit.', field: '', mend: '' }
    vi.spyOn(api, 'following').mockImplementation(async (id) => following(id === 3 ? stays : null))
    const view = await shown([job(1, 'Tray'), job(3, 'Rack'), job(2, 'Case', true)])
    expect(groups(view)).toEqual(['Can follow', 'Handed over before', 'Stay as they are'])
    expect(view.text()).toContain('The tab falls out.')
    expect(view.findAll('button').filter((one) => one.text() === 'Follow')).toHaveLength(2)
  })

  it('follow all one after the other; one that is refused stays, and says why', async () => {
    vi.spyOn(api, 'following').mockResolvedValue(following())
    const refused = new Problem('changed-elsewhere', 'Saved elsewhere.', 'Look again.', '', 409)
    const follow = vi.spyOn(api, 'follow').mockImplementation(async ({ id }) => {
      if (id === 1) throw refused
      return followed
    })
    const view = await shown([job(1, 'Tray'), job(2, 'Case')])
    await press(view, 'Follow with all 2')
    expect(follow.mock.calls.map(([held]) => held.id)).toEqual([1, 2])
    expect(view.text()).toContain('Saved elsewhere.')
    expect(view.text()).toContain('Follows now, not proved yet')
    const undo = vi.spyOn(api, 'undo').mockResolvedValue(followed)
    await press(view, 'Undo')
    expect(undo).toHaveBeenCalledWith({ id: 2, moves: 4, revision: 3 })
    expect(view.text()).not.toContain('Follows now')
  })

  it('are stopped between two jobs', async () => {
    let go: (found: Following) => void = () => undefined
    vi.spyOn(api, 'following').mockImplementation(() => new Promise((done) => (go = done)))
    const view = await shown([job(1, 'Tray'), job(2, 'Case')])
    expect(view.text()).toContain('Looking at 1 of 2')
    await press(view, 'Stop')
    go(following())
    await flushPromises()
    expect(api.following).toHaveBeenCalledTimes(1)
    expect(view.text()).toContain('not looked at yet')
  })

  it('go on in one loop only where another begins before the first has ended', async () => {
    vi.spyOn(api, 'following').mockResolvedValue(following())
    const waiting: (() => void)[] = []
    const follow = vi.spyOn(api, 'follow').mockImplementation(() => new Promise((done) => waiting.push(() => done(followed)))) // prettier-ignore
    const view = await shown([job(1, 'Tray'), job(2, 'Case'), job(3, 'Rack')])
    await press(view, 'Follow with all 3')
    await press(view, 'Stop')
    await press(view, 'Follow with all 3')
    waiting[0]!()
    await flushPromises()
    expect(follow.mock.calls.map(([held]) => held.id)).toEqual([1, 1])
  })

  it('are none where every job is of today', async () => {
    expect((await shown([])).text()).toContain('Every job is computed from what the workshop has now.')
  })
})
