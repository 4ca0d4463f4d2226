import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'

import type { Change, News } from '../api/client'
import { useJob } from '../stores/job'
import NewsNote from './NewsNote.vue'

const WIDTH = { about: '', title: 'outside width', kind: 'length', before: 156.12, after: 156.42 } as Change
const BOARD: News = {
  board: 'main', of: 'board', id: 7, what: ['thickness'], said: 'Poplar ply measures 3.21 mm now, was 3.06 mm', at: null,
  was: 3.06, now: 3.21, own: false, edits: [{ verb: 'put', path: 'basis/main/stock', value: 7, to: '' }], changes: [WIDTH], problem: null,
} // prettier-ignore

describe('news of the workshop', () => {
  beforeEach(() => {
    localStorage.clear()
    setActivePinia(createPinia())
  })

  const note = (news: News) => mount(NewsNote, { props: { news } })

  it('say what differs and what would change, and are followed when asked', async () => {
    const edit = vi.spyOn(useJob(), 'edit').mockResolvedValue(true)
    const view = note(BOARD)
    expect(view.text()).toContain('Poplar ply measures 3.21 mm now, was 3.06 mm.')
    expect(view.text()).toContain('1 figure would change')
    expect(view.text()).toContain('156.42')
    await view.find('button').trigger('click')
    expect(edit).toHaveBeenCalledWith(BOARD.edits[0])
    expect(
      note({ ...BOARD, of: 'notebook' })
        .find('button')
        .text(),
    ).toBe('Use the notebook’s')
  })

  it('say when nothing would change, and when it would no longer work', () => {
    const said = 'Shed laser was changed: bed, axes'
    const clamp = { ...BOARD, of: 'machine' as const, what: ['bed', 'axes'], said, changes: [] }
    expect(note(clamp).text()).toContain(`${said}.`)
    expect(note(clamp).text()).toContain('No figure of the job would change')
    const problem = { code: 'part-too-large', why: 'Front is 700 mm.', fix: '', field: '', mend: '' }
    expect(note({ ...BOARD, changes: [], problem }).text()).toContain(
      'It would no longer work: Front is 700 mm.',
    )
  })
})
