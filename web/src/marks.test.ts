import { flushPromises, mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'

import { api, Problem, type Choices, type Design, type Mark, type ProfileValues } from './api/client'
import MarkEditor from './components/MarkEditor.vue'
import MarksPanel from './components/MarksPanel.vue'
import ProfileEditor from './components/ProfileEditor.vue'
import { lengthsFor, newMark, operationsFor, typed } from './marks'
import { useJob } from './stores/job'
import { useSettings } from './stores/settings'
import { timeText } from './units'

const OPERATIONS = {
  engrave: 'Engrave an area',
  score: 'Score, not through',
  fold: 'Fold line',
  pocket: 'Pocket, to a depth',
  cut: 'Through-cut',
  reference: 'Reference only',
}
const choices = {
  operations: OPERATIONS,
  fonts: ['sans', 'single stroke'],
  mark_lengths: {
    line: ['x', 'y', 'to_x', 'to_y'],
    rectangle: ['x', 'y', 'width', 'height', 'radius'],
    circle: ['x', 'y', 'diameter'],
    text: ['x', 'y', 'height', 'bridge'],
  },
} as unknown as Choices

const BOX = [0, 0, 156, 63] as const
const mark = (over: Partial<Mark> = {}): Mark => ({ ...newMark('circle', BOX, []), ...over })

describe('marks', () => {
  it('start inside the part, with a name of their own', () => {
    const circle = newMark('circle', BOX, ['circle-1', 'circle-2'])
    expect(circle.id).toBe('circle-3')
    expect(typed(circle.lengths['x'])).toEqual({ text: '78', unit: 'mm' })
    expect(newMark('line', BOX, []).operation).toBe('score')
    expect(newMark('text', BOX, []).text).not.toBe('')
  })

  it('ask only for what counts', () => {
    expect(lengthsFor(mark(), choices.mark_lengths)).toEqual(['x', 'y', 'diameter'])
    expect(lengthsFor(mark({ columns: 3, operation: 'pocket' }), choices.mark_lengths)).toEqual([
      'x',
      'y',
      'diameter',
      'depth',
      'dx',
    ])
    expect(lengthsFor(newMark('text', BOX, []), choices.mark_lengths)).not.toContain('bridge')
    expect(operationsFor('line', OPERATIONS)).not.toContain('cut')
    expect(operationsFor('circle', OPERATIONS)).toContain('cut')
  })

  it('keep the unit that a length was typed in', () => {
    expect(typed({ text: '1/4', unit: 'in' })).toEqual({ text: '1/4', unit: 'in' })
    expect(typed('7')).toEqual({ text: '7', unit: 'mm' })
    expect(typed(undefined).text).toBe('')
  })
})

describe('a mark’s questions', () => {
  beforeEach(() => {
    localStorage.clear()
    setActivePinia(createPinia())
  })

  const editor = (one: Mark) =>
    mount(MarkEditor, { props: { mark: one, field: 'front.marks[0]', choices }, attachTo: document.body })

  it('answer with a whole new mark', async () => {
    const view = editor(mark())
    const input = view.get('[data-field="front.marks[0].diameter"]')
    await input.setValue('9')
    await input.trigger('keydown.enter')
    const [changed] = view.emitted<[Mark]>('change')!.at(-1)!
    expect(changed.lengths['diameter']).toEqual({ text: '9', unit: 'mm' })
    expect(typed(changed.lengths['x']).text).toBe('78')
  })

  it('say what was typed in another unit with its unit', () => {
    useSettings().unit = 'in'
    const view = editor(mark())
    expect((view.get('[data-field="front.marks[0].x"]').element as HTMLInputElement).value).toBe('78 mm')
  })

  it('give copies a distance at once', async () => {
    const view = editor(mark())
    await view.get('[data-field="front.marks[0].columns"]').setValue('4')
    const [changed] = view.emitted<[Mark]>('change')!.at(-1)!
    expect(changed.columns).toBe(4)
    expect(typed(changed.lengths['dx']).text).toBe('10')
  })

  it('show what is wrong beside the question', () => {
    useJob().problem = new Problem(
      'missing-character',
      'The font lacks 沼.',
      'Choose another.',
      'front.marks[0].text',
      422,
    )
    const view = editor({ ...newMark('text', BOX, []), text: '沼' })
    expect(view.get('[role=alert]').text()).toContain('lacks 沼')
  })
})

describe('what is drawn on a part', () => {
  const design = {
    id: 1,
    moves: 1,
    ledger: {},
    route: [],
    parts: [
      { id: 'front', title: 'Front', box: BOX, marks: [{ id: 'circle-1', document: mark() }], corners: [] },
    ],
  } as unknown as Design

  beforeEach(() => {
    setActivePinia(createPinia())
    vi.restoreAllMocks()
    vi.spyOn(api, 'choices').mockResolvedValue(choices)
    const job = useJob()
    job.design = design
    job.selected = 'part:front'
  })

  it('sends all marks of the part with each change', async () => {
    const edit = vi.spyOn(useJob(), 'edit').mockResolvedValue(true)
    const view = mount(MarksPanel)
    await flushPromises()
    await view
      .findAll('button')
      .find((button) => button.text() === '+ line')!
      .trigger('click')
    const [changes, parts] = edit.mock.calls[0]!
    expect(changes).toEqual({})
    expect(parts!['front']!.marks!.map(({ kind }) => kind)).toEqual(['circle', 'line'])
  })

  it('opens a mark’s questions and takes it away', async () => {
    const edit = vi.spyOn(useJob(), 'edit').mockResolvedValue(true)
    const view = mount(MarksPanel)
    await flushPromises()
    await view.get('.row').trigger('click')
    expect(view.get('.row').attributes('aria-expanded')).toBe('true')
    await view.get('form .link').trigger('click')
    expect(edit.mock.calls.at(-1)![1]).toEqual({ front: { marks: [] } })
  })

  it('rounds a corner', async () => {
    const edit = vi.spyOn(useJob(), 'edit').mockResolvedValue(true)
    const view = mount(MarksPanel)
    await flushPromises()
    await view
      .findAll('button')
      .find((button) => button.text() === '+ top left')!
      .trigger('click')
    expect(edit.mock.calls.at(-1)![1]).toEqual({
      front: { corners: [{ corner: 'top-left', shape: 'round', size: { text: '3', unit: 'mm' } }] },
    })
  })
})

describe('a hand-over profile', () => {
  const layer = (name: string) => ({ name, colour: '#000000', include: true })
  const profile = {
    name: 'Plain',
    order: ['engrave', 'score', 'cut'],
    layers: { engrave: layer('ENGRAVE'), score: layer('SCORE'), cut: layer('CUT') },
    split: 'sheet',
    unit: 'mm',
    origin: 'plain',
    engrave: 'outline',
    hatch_mm: 0.2,
    lead_in_mm: 0,
    stroke_mm: 0.1,
    reference_square: false,
    labels: false,
    y_down: false,
  } as ProfileValues

  it('changes one thing at a time', async () => {
    const view = mount(ProfileEditor, { props: { profile, titles: OPERATIONS } })
    await view.get('[aria-label="layer of score"]').setValue('MARK')
    await view.get('[aria-label="layer of score"]').trigger('change')
    const [changed] = view.emitted<[ProfileValues]>('change')!.at(-1)!
    expect(changed.layers['score']!.name).toBe('MARK')
    expect(changed.layers['cut']!.name).toBe('CUT')
  })

  it('moves an operation up, but not the first one', async () => {
    const view = mount(ProfileEditor, { props: { profile, titles: OPERATIONS } })
    await view.get('[aria-label="do cut earlier"]').trigger('click')
    const [changed] = view.emitted<[ProfileValues]>('change')!.at(-1)!
    expect(changed.order).toEqual(['engrave', 'cut', 'score'])
    expect(view.get('[aria-label="do engrave earlier"]').attributes('disabled')).toBeDefined()
  })

  it('asks for the hatch only where there is one', async () => {
    const view = mount(ProfileEditor, { props: { profile, titles: OPERATIONS } })
    expect(view.find('[data-field=hatch_mm]').exists()).toBe(false)
    await view.setProps({ profile: { ...profile, engrave: 'hatch' } })
    expect(view.find('[data-field=hatch_mm]').exists()).toBe(true)
  })
})

describe('durations', () => {
  it.each([
    [8.4, '8 s'],
    [59.7, '1 min 00 s'],
    [95, '1 min 35 s'],
    [4000, '1 h 06 min'],
  ])('says %d s as %s', (seconds, text) => {
    expect(timeText(seconds)).toBe(text)
  })
})
