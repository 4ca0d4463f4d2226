import { flushPromises } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { effectScope, ref } from 'vue'

import { api, Problem, type Entry, type Piece, type PieceRead, type Way } from '../api/client'
import { useSettings } from '../stores/settings'
import { useTestPiece } from './useTestPiece'

const PIECE = { settings: [{ name: 'length' }], clearances: [], file_names: {} } as unknown as Piece
const COMB = { ...PIECE, clearances: [-0.1, -0.05, 0] } as Piece
const told = (row: number[]) =>
  ({ kerf: 0.14, within: 0.001, row, hole: [], plug: [] }) as unknown as PieceRead

function opened(way: Way = 'slats') {
  const asked = ref({ machine: 1, stock: 7, way })
  const test = effectScope().run(() => useTestPiece(() => asked.value))!
  return { asked, test }
}

describe('a test piece', () => {
  beforeEach(() => {
    localStorage.clear()
    setActivePinia(createPinia())
    vi.restoreAllMocks()
    vi.spyOn(api, 'piece').mockImplementation(async ({ way }) => (way === 'comb' ? COMB : PIECE))
    vi.spyOn(api, 'notebook').mockResolvedValue([])
    vi.spyOn(api, 'readPiece').mockResolvedValue(told([98.6, 98.61]))
  })

  it('is drawn at once, and read when something was measured', async () => {
    const { test } = opened()
    await flushPromises()
    expect(test.piece.value).toBe(PIECE)
    expect(api.readPiece).not.toHaveBeenCalled()
    await test.measure('row', ['98.6', '98.61'])
    expect(test.read.value?.kerf).toBe(0.14)
    expect(test.measured.row).toEqual([98.6, 98.61])
  })

  it('keeps its readings apart from those of another board, and over a reload', async () => {
    const { asked, test } = opened()
    await flushPromises()
    await test.measure('row', ['98.6', '98.61'])
    asked.value = { machine: 1, stock: 8, way: 'slats' }
    await flushPromises()
    expect(test.draft.value.row).toEqual([])
    expect(test.read.value).toBeNull()
    const again = opened()
    await flushPromises()
    expect(again.test.draft.value.row).toEqual(['98.6 mm', '98.61 mm'])
    expect(again.test.read.value?.kerf).toBe(0.14)
  })

  it('means a size in the unit it was typed in', async () => {
    const { test } = opened()
    useSettings().unit = 'in'
    await flushPromises()
    await test.resize('length', '4')
    expect(vi.mocked(api.piece).mock.lastCall![0]).toMatchObject({ settings: { length: '4' }, unit: 'in' })
    useSettings().unit = 'mm'
    await test.measure('row', ['98.6', '98.61'])
    expect(vi.mocked(api.readPiece).mock.lastCall![0]).toMatchObject({
      settings: { length: '4 in' },
      unit: 'mm',
    })
  })

  it('says what is wrong at the reading, and keeps what was typed', async () => {
    const slip = new Problem('readings-disagree', 'Far off.', 'Is it 98.6 mm?', 'row[1]', 422, '98.6 mm')
    vi.mocked(api.readPiece).mockRejectedValueOnce(slip)
    const { test } = opened()
    await flushPromises()
    await test.measure('row', ['98.6', '986'])
    expect(test.problemAt('row')).toBe(slip)
    expect(test.elsewhere.value).toBeNull()
    expect(test.read.value).toBeNull()
    expect(test.draft.value.row).toEqual(['98.6', '986'])
    await test.measure('row', ['98.6', '98.6 mm'])
    expect(test.problemAt('row')).toBeNull()
  })

  it('asks a comb when three pairs were tried', async () => {
    const { test } = opened('comb')
    await flushPromises()
    await test.answer(0, 'holds')
    await test.answer(2, 'falls apart')
    expect(api.readPiece).not.toHaveBeenCalled()
    await test.answer(1, 'slides')
    expect(vi.mocked(api.readPiece).mock.lastCall![0].answers).toEqual(['holds', 'slides', 'falls apart'])
  })

  it('that a practice machine cut is known as such until it is cleared', async () => {
    vi.spyOn(api, 'practise').mockResolvedValue({
      way: 'slats', kerf: null, thickness: [3], row: [98.6, 98.61], hole: [], plug: [], answers: [],
    }) // prettier-ignore
    const { test } = opened()
    await flushPromises()
    await test.practise(4)
    expect(test.draft.value.practice).toEqual({ seed: 4, kerf: null })
    expect(test.read.value?.kerf).toBe(0.14)
    vi.spyOn(api, 'practiceTruth').mockResolvedValue({ kerf: 0.141, limits: [] })
    await test.reveal()
    expect(test.truth.value?.kerf).toBe(0.141)
    test.clear()
    expect([test.draft.value.practice, test.truth.value, test.draft.value.row]).toEqual([null, null, []])
  })

  it('is cleared once it is in the notebook', async () => {
    vi.spyOn(api, 'addEntry').mockResolvedValue([{ id: 5 } as Entry])
    const { test } = opened()
    await flushPromises()
    await test.measure('row', ['98.6', '98.61'])
    test.draft.value.note = 'lens cleaned'
    await test.keep()
    expect(vi.mocked(api.addEntry).mock.lastCall![0]).toMatchObject({ note: 'lens cleaned', way: 'slats' })
    expect(test.entries.value.map(({ id }) => id)).toEqual([5])
    expect(test.draft.value.row).toEqual([])
    expect(test.said.value).not.toBe('')
  })

  it('drops an answer to a question that is no longer asked', async () => {
    let answer!: (piece: Piece) => void
    vi.mocked(api.piece).mockReturnValueOnce(new Promise((done) => (answer = done)))
    const { asked, test } = opened()
    await flushPromises()
    asked.value = { machine: 1, stock: 7, way: 'comb' }
    await flushPromises()
    answer(PIECE)
    await flushPromises()
    expect(test.piece.value).toBe(COMB)
  })
})
