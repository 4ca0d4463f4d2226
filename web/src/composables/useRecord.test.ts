import { describe, expect, it } from 'vitest'

import { Problem } from '../api/client'
import { useRecord } from './useRecord'

interface Board {
  name: string
  note: string
  readings: number[]
}

/** A rack with one board, changed as the server would. */
function rack() {
  let board: Board = { name: 'Poplar ply', note: '', readings: [3.06] }
  const keep = async (_id: number, changes: Partial<Board>) => {
    if (changes.name === '') throw new Problem('bad-document', 'No name.', 'Give one.', 'stock.name', 422)
    board = { ...board, ...changes }
  }
  const record = useRecord<Partial<Board>>(() => board, keep)
  return { record, board: () => board, set: (other: Board) => (board = other) }
}

describe('something of the workshop’s', () => {
  it('is changed field by field, back and forth', async () => {
    const { record, board } = rack()
    await record.edit(1, { note: 'tape' })
    await record.edit(1, { name: 'Birch ply' })
    await record.undo()
    expect(board()).toMatchObject({ name: 'Poplar ply', note: 'tape' })
    await record.undo()
    expect(board().note).toBe('')
    expect([record.canUndo.value, record.canRedo.value]).toEqual([false, true])
    await record.redo()
    await record.redo()
    expect(board()).toMatchObject({ name: 'Birch ply', note: 'tape' })
    expect(record.canRedo.value).toBe(false)
  })

  it('takes steps one after the other, however fast they come', async () => {
    const { record, board } = rack()
    await Promise.all([record.edit(1, { note: 'tape' }), record.edit(1, { name: 'Birch ply' })])
    await Promise.all([record.undo(), record.undo(), record.undo()])
    expect(board()).toMatchObject({ name: 'Poplar ply', note: '' })
    expect(record.canUndo.value).toBe(false)
  })

  it('forgets what was undone once something else is changed', async () => {
    const { record, board } = rack()
    await record.edit(1, { note: 'tape' })
    await record.undo()
    await record.edit(1, { name: 'Birch ply' })
    expect(record.canRedo.value).toBe(false)
    await record.redo()
    expect(board()).toMatchObject({ name: 'Birch ply', note: '' })
  })

  it('leaves alone what was measured between a step and its undo', async () => {
    const { record, board, set } = rack()
    await record.edit(1, { note: 'tape' })
    set({ ...board(), readings: [3.2] })
    await record.undo()
    expect(board()).toEqual({ name: 'Poplar ply', note: '', readings: [3.2] })
  })

  it('says what is wrong at its field, and counts no step', async () => {
    const { record, board } = rack()
    expect(await record.edit(1, { name: '' })).toBe(false)
    expect(board().name).toBe('Poplar ply')
    expect(record.problemAt('name')?.fix).toBe('Give one.')
    expect(record.problemAt('note')).toBeNull()
    expect(record.canUndo.value).toBe(false)
  })
})
