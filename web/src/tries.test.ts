import { describe, expect, it } from 'vitest'

import type { Change, Trial } from './api/client'
import { figureOf, isChanged, rowsOf } from './tries'

const change = (about: string, title: string, before: number, after: number, kind = 'length') =>
  ({
    subject: about ? `part:${about}` : 'job',
    key: title,
    about,
    title,
    before,
    after,
    kind,
    word_before: '',
    word_after: '',
  }) as unknown as Change
const trial = (...changes: Change[]) => ({ changes, problem: null }) as unknown as Trial

const NOW = trial()
const THICK = trial(
  { ...change('', 'thickness', 3, 5), subject: 'basis:main' },
  change('', 'outside width', 156, 160),
  change('Front', 'height', 63, 65),
  change('', 'slot', 0, 0, 'word'),
)
const CLEAR = trial(change('', 'outside width', 156, 158))
const FAILED = { changes: [], problem: { code: 'part-too-large' } } as unknown as Trial

describe('bases side by side', () => {
  const rows = rowsOf([NOW, THICK, CLEAR, FAILED])

  it('list each length once, the job’s apart from its parts’, the basis’ own not at all', () => {
    expect(rows.job.map(({ title }) => title)).toEqual(['outside width'])
    expect(rows.parts.map(({ title }) => title)).toEqual(['Front height'])
  })

  it('show the figure on each basis: changed, as before, or none', () => {
    const all = [NOW, THICK, CLEAR, FAILED]
    expect(all.map((one) => figureOf(rows.job[0]!, one, all))).toEqual([156, 160, 158, null])
    expect(all.map((one) => figureOf(rows.parts[0]!, one, all))).toEqual([63, 65, 63, null])
    expect(all.map((one) => isChanged(rows.job[0]!, one))).toEqual([false, true, true, false])
  })
})
