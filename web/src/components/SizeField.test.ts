import { mount } from '@vue/test-utils'
import ElementPlus from 'element-plus'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'

import { Problem } from '../api/connection'
import SizeField from './SizeField.vue'

beforeEach(() => setActivePinia(createPinia()))

const shown = (props: object = {}) =>
  mount(SizeField, {
    props: { at: [10, 20], label: 'Width inside', value: 150, text: '150', chosen: true, ...props },
    global: { plugins: [ElementPlus] },
    attachTo: document.body,
  })

describe('a size on a drawing', () => {
  it('opens to be typed, tells each text, and keeps it with Enter', async () => {
    const field = shown()
    await field.get('button').trigger('click')
    const input = field.get('input')
    expect(input.element.value).toBe('150')
    await input.setValue('2*90 + 2')
    await field.setProps({ value: 182, was: 150 })
    expect(field.get('[role=status]').text()).toContain('= 182.00 mm')
    expect(field.get('[role=status]').text()).toContain('was 150.00')
    await input.trigger('keydown', { key: 'Enter' })
    expect(field.emitted('begin')).toHaveLength(1)
    expect(field.emitted('draft')).toEqual([['2*90 + 2']])
    expect(field.emitted('keep')).toEqual([['2*90 + 2']])
    expect(field.find('input').exists()).toBe(false)
    field.unmount()
  })

  it('brings back what was there with Escape', async () => {
    const field = shown()
    await field.get('button').trigger('click')
    await field.get('input').setValue('17')
    await field.get('input').trigger('keydown', { key: 'Escape' })
    expect(field.emitted('leave')).toEqual([['150']])
    expect(field.emitted('keep')).toBeUndefined()
    field.unmount()
  })

  it('stays open on what cannot be, with its problem and what was typed', async () => {
    const field = shown()
    await field.get('button').trigger('click')
    await field.get('input').setValue('2')
    await field.setProps({
      problem: new Problem('small', 'Too short for fingers.', 'Make it longer.', 'width', 422),
    })
    await field.get('input').trigger('keydown', { key: 'Enter' })
    expect(field.emitted('keep')).toBeUndefined()
    expect(field.get('[role=status]').text()).toContain('Too short for fingers. Make it longer.')
    expect(field.get('input').element.value).toBe('2')
    expect(field.get('input').attributes('aria-invalid')).toBe('true')
    field.unmount()
  })

  it('opens again with what was typed where the server refused it', async () => {
    const field = shown()
    await field.get('button').trigger('click')
    await field.get('input').setValue('nothing')
    await field.get('input').trigger('keydown', { key: 'Enter' })
    await field.setProps({
      problem: new Problem('name', 'There is no length called “nothing”.', '', 'width', 422),
    })
    await new Promise((done) => setTimeout(done))
    expect(field.get('input').element.value).toBe('nothing')
    field.unmount()
  })

  it('is kept once the problem of an older text has gone, where Enter was pressed meanwhile', async () => {
    const field = shown()
    await field.get('button').trigger('click')
    await field.get('input').setValue('2*30 +')
    await field.get('input').setValue('2*30 + 2')
    await field.setProps({ problem: new Problem('arithmetic', 'Something is missing.', '', 'width', 422) })
    await field.get('input').trigger('keydown', { key: 'Enter' })
    await field.setProps({ problem: null, value: 62 })
    expect(field.emitted('keep')).toEqual([['2*30 + 2']])
    expect(field.find('input').exists()).toBe(false)
    field.unmount()
  })

  it('stays closed where the problem is of another size that shares the answer', async () => {
    const field = shown()
    await field.setProps({ problem: new Problem('arithmetic', 'Something is missing.', '', 'width', 422) })
    expect(field.find('input').exists()).toBe(false)
    field.unmount()
  })

  it('that follows from others is not typed', () => {
    const field = shown({ fixed: true, says: 'outside' })
    expect(field.find('button').exists()).toBe(false)
    expect(field.text()).toContain('150.00')
    field.unmount()
  })
})
