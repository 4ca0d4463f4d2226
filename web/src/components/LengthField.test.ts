import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'

import { Problem } from '../api/client'
import { useJob } from '../stores/job'
import LengthField from './LengthField.vue'

describe('a length to type', () => {
  beforeEach(() => {
    localStorage.clear()
    setActivePinia(createPinia())
  })

  const field = () => mount(LengthField, { props: { field: 'kerf', label: 'Kerf', text: '0.14' } })

  it('commits once, on Enter or on leaving', async () => {
    const view = field()
    await view.find('input').setValue('0.2')
    await view.find('input').trigger('keydown.enter')
    await view.find('input').trigger('blur')
    expect(view.emitted('commit')).toEqual([['0.2']])
  })

  it('commits nothing that was not changed', async () => {
    const view = field()
    await view.find('input').trigger('blur')
    expect(view.emitted('commit')).toBeUndefined()
  })

  it('brings back the old text on Escape', async () => {
    const view = field()
    await view.find('input').setValue('junk')
    await view.find('input').trigger('keydown.esc')
    expect(view.find('input').element.value).toBe('0.14')
    expect(view.emitted('cancel')).toHaveLength(1)
  })

  it('keeps what was typed beside its problem', async () => {
    const view = field()
    await view.find('input').setValue('-1')
    await view.find('input').trigger('keydown.enter')
    useJob().problem = new Problem('out-of-range', 'The kerf is -1 mm.', 'Give 0 mm or more.', 'kerf', 422)
    await view.vm.$nextTick()
    expect(view.find('input').element.value).toBe('-1')
    expect(view.find('input').attributes('aria-invalid')).toBe('true')
    expect(view.find('[role=alert]').text()).toContain('Give 0 mm or more.')
    expect(view.find('label').attributes('for')).toBe(view.find('input').attributes('id'))
  })
})
