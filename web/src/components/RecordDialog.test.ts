import { flushPromises, mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'

import { Problem } from '../api/client'
import RecordDialog from './RecordDialog.vue'

const QUESTIONS = [
  { name: 'name', label: 'Name', start: '', required: true },
  { name: 'kind', label: 'Kind', start: 'laser', choices: ['laser', 'router'] },
  { name: 'kerf', label: 'Kerf', start: '', required: true },
]

describe('a dialog for a new thing of the workshop’s', () => {
  beforeEach(() => {
    localStorage.clear()
    setActivePinia(createPinia())
  })

  /** Without the dialog's own frame, which is Element Plus' to test. */
  function dialog(save: (answers: Record<string, string>) => Promise<void>) {
    const frame = { props: ['modelValue'], template: '<div v-if="modelValue"><slot /></div>' }
    return mount(RecordDialog, {
      props: { title: 'New machine', action: 'Add machine', questions: QUESTIONS, save },
      global: { stubs: { ElDialog: frame } },
    })
  }

  it('hands over what was typed, and closes', async () => {
    const save = vi.fn().mockResolvedValue(undefined)
    const view = dialog(save)
    await view.find('[data-field=name]').setValue('Shed laser')
    await view.find('[data-field=kerf]').setValue('0.14')
    await view.find('form').trigger('submit')
    await flushPromises()
    expect(save).toHaveBeenCalledWith({ name: 'Shed laser', kind: 'laser', kerf: '0.14' })
    expect(view.find('form').exists()).toBe(false)
  })

  it.each([
    ['machine.name', 'name'],
    ['kerf', 'kerf'],
  ])('says a problem at “%s” at its question, and keeps what was typed', async (field, question) => {
    const view = dialog(vi.fn().mockRejectedValue(new Problem('code', 'Wrong.', 'Mend it.', field, 422)))
    await view.find('[data-field=name]').setValue('Shed laser')
    await view.find('[data-field=kerf]').setValue('wide')
    await view.find('form').trigger('submit')
    await flushPromises()
    expect(view.find(`[data-field=${question}]`).attributes('aria-invalid')).toBe('true')
    expect(view.findAll('[role=alert]')).toHaveLength(1)
    expect((view.find('[data-field=kerf]').element as HTMLInputElement).value).toBe('wide')
  })

  it('says a problem without a question below them all', async () => {
    const view = dialog(
      vi.fn().mockRejectedValue(new Problem('unreachable', 'No answer.', 'Try again.', '', 0)),
    )
    await view.find('[data-field=name]').setValue('Shed laser')
    await view.find('[data-field=kerf]').setValue('0.14')
    await view.find('form').trigger('submit')
    await flushPromises()
    expect(view.find('.wide').text()).toContain('Try again.')
  })

  it('says everything that is missing at once, and asks nobody', async () => {
    const save = vi.fn()
    const view = dialog(save)
    await view.find('form').trigger('submit')
    expect(view.findAll('[role=alert]').map((note) => note.text())).toEqual([
      'Name is missing. Type it.',
      'Kerf is missing. Type it.',
    ])
    expect(view.find('[data-field=name]').attributes('aria-required')).toBe('true')
    expect(save).not.toHaveBeenCalled()
  })
})
