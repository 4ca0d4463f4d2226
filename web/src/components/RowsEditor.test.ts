import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'

import { Problem } from '../api/client'
import RowsEditor from './RowsEditor.vue'

const COLUMNS = [
  { name: 'name', label: 'name', words: true },
  { name: 'x', label: 'x' },
  { name: 'outline', label: 'corners', below: true },
]
const ROWS = [
  { name: 'front', x: '1', outline: '0 0' },
  { name: 'rear', x: '2', outline: '1 1' },
]

function rows(problem: Problem | null = null) {
  return mount(RowsEditor, {
    props: { columns: COLUMNS, rows: ROWS, field: 'clamps', add: 'add a clamp', draft: null,
      problemAt: (field: string) => (problem?.field === field ? problem : null) },
  }) // prettier-ignore
}

describe('a list of the workshop’s', () => {
  beforeEach(() => {
    localStorage.clear()
    setActivePinia(createPinia())
  })

  it('is changed in place, each time as a whole', async () => {
    const view = rows()
    const field = view.find('[data-field="clamps[1].x"]')
    await field.setValue('5')
    await field.trigger('keydown.enter')
    expect(view.emitted('commit')).toEqual([[[ROWS[0], { ...ROWS[1], x: '5' }]]])
  })

  it('loses a row', async () => {
    const view = rows()
    await view.find('[aria-label="Remove row 1"]').trigger('click')
    expect(view.emitted('commit')).toEqual([[[ROWS[1]]]])
  })

  it('gets a row once it is kept, and keeps what was typed until then', async () => {
    const view = rows()
    await view.findAll('button').at(-1)!.trigger('click')
    const draft = view.emitted('update:draft')![0]![0] as Record<string, string>
    expect(draft).toEqual({ name: '', x: '', outline: '' })
    await view.setProps({ draft: { name: 'left', x: '3', outline: '' } })
    await view.find('[aria-label="x, new row"]').trigger('keydown.enter')
    expect(view.emitted('commit')![0]).toEqual([[...ROWS, { name: 'left', x: '3', outline: '' }]])
    await view.find('[aria-label="x, new row"]').trigger('keydown.esc')
    expect(view.emitted('update:draft')!.at(-1)).toEqual([null])
  })

  it('says what is wrong below its row', () => {
    const view = rows(new Problem('out-of-range', 'Beside the bed.', 'Check the unit.', 'clamps[1]', 422))
    expect(view.findAll('[role=alert]').map((note) => note.text())).toEqual([
      'Beside the bed. Check the unit.',
    ])
  })
})
