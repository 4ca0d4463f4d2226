import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'

import { Problem } from '../api/client'
import CombAnswers from './CombAnswers.vue'

const FEELS = ['will not go', 'needs a mallet', 'holds', 'slides', 'falls apart']

function grid(answers: string[], problem: Problem | null = null) {
  return mount(CombAnswers, { props: { clearances: [-0.1, 0, 0.1], feels: FEELS, answers, problem } })
}

describe('the answers of a comb', () => {
  beforeEach(() => {
    localStorage.clear()
    setActivePinia(createPinia())
  })

  it('are a row a pair with its clearance, and one mark in each', () => {
    const view = grid(['holds', '', 'falls apart'])
    const rows = view.findAll('tbody tr')
    expect(rows.map((row) => row.find('td').text())).toEqual(['−0.100', '0.000', '+0.100'])
    const marks = rows.map((row) => row.findAll('input').findIndex(({ element }) => element.checked))
    expect(marks).toEqual([2, 5, 4])
  })

  it('are told one by one', async () => {
    const view = grid(['holds'])
    await view.findAll('tbody tr')[1]!.findAll('input')[3]!.setValue()
    expect(view.emitted('answer')).toEqual([[1, 'slides']])
  })

  it('that contradict each other are named at their pair', () => {
    const problem = new Problem('readings-disagree', 'Pair 3 holds.', 'Try both again.', 'answers[2]', 422)
    const view = grid(['holds', 'slides', 'holds'], problem)
    expect(view.findAll('[aria-invalid=true]')).toHaveLength(1)
    expect(view.find('[role=alert]').text()).toContain('Try both again.')
  })

  it('that are too few are said below', () => {
    const view = grid(['holds'], new Problem('out-of-range', 'One pair.', 'Try three.', 'answers', 422))
    expect(view.find('[role=alert]').text()).toContain('Try three.')
    expect(view.findAll('[aria-invalid=true]')).toHaveLength(0)
  })
})
