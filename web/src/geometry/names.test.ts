import { expect, it } from 'vitest'

import { placeNames, seen, type Named } from './names'
import type { Box } from './view'

const BOUNDS: Box = [0, 0, 400, 300]
const wide = (text: string) => 8 * text.length
const named = (text: string, box: Box, room: Box | null = box, note = ''): Named => ({
  key: text,
  text,
  note,
  box,
  room,
})
const drawn = (...some: Named[]) => {
  const { names, list } = placeNames(some, BOUNDS, wide)
  return { names: names.map(({ text, note, leader }) => `${text}${note}${leader ? ' ->' : ''}`), list }
}

it('writes a name in the part where it has room, with its note where that has room too', () => {
  expect(drawn(named('Front', [10, 10, 210, 90], undefined, ' 150 x 60')).names).toEqual(['Front 150 x 60'])
  expect(drawn(named('Front', [10, 10, 80, 90], undefined, ' 150 x 60')).names).toEqual(['Front'])
})

it('writes it beside the part, with a line to it, where it has none', () => {
  expect(drawn(named('Front', [10, 10, 30, 90]))).toEqual({ names: ['Front ->'], list: [] })
  expect(drawn(named('Front', [10, 10, 200, 90], [100, 40, 110, 50])).names).toEqual(['Front ->'])
})

it('writes a number, and the name in the list, where there is none beside it either', () => {
  const row = Array.from({ length: 10 }, (_, i) => named(`Long name ${i}`, [i * 40, 0, i * 40 + 40, 300]))
  const { names, list } = drawn(...row)
  expect(names).toEqual(list.map(({ number }) => `${number}`))
  expect(list[3]).toEqual({ number: 4, text: 'Long name 3', note: '' })
})

it('gives copies of one name one number, and leaves a number away where not even that fits', () => {
  const same = [0, 1, 2].map((i) => ({
    ...named('Leg', [i * 133, 0, i * 133 + 133, 300], [i * 133, 0, i * 133 + 20, 20]),
    key: `leg-${i}`,
  }))
  expect(placeNames(same, BOUNDS, wide).list).toEqual([{ number: 1, text: 'Leg', note: '' }])
  const tiny = [named('A pin', [10, 10, 12, 12]), named('A bar', [0, 0, 400, 300], null)]
  const { names, list } = placeNames(tiny, [0, 0, 60, 40], wide, [[0, 0, 60, 40]])
  expect([names, list.length]).toEqual([[], 2])
})

it('never writes over what is taken, over another name, or outside', () => {
  const many = Array.from({ length: 40 }, (_, i): Named => {
    const [x, y] = [(i % 8) * 50, Math.floor(i / 8) * 60]
    return named(`Part ${i}`, [x, y, x + 20 + (i % 5) * 12, y + 10 + (i % 4) * 14])
  })
  const taken: Box[] = [[100, 100, 180, 140]]
  const { names } = placeNames(many, BOUNDS, wide, taken)
  const boxes = names.map(({ at, text, anchor }): Box => {
    const left = anchor === 'start' ? at[0] : anchor === 'end' ? at[0] - wide(text) : at[0] - wide(text) / 2
    return [left, at[1] - 8, left + wide(text), at[1] + 8]
  })
  const all = [...taken, ...boxes]
  const over = (a: Box, b: Box) => a[0] < b[2] && a[2] > b[0] && a[1] < b[3] && a[3] > b[1]
  for (const [i, a] of all.entries()) for (const b of all.slice(0, i)) expect(over(a, b)).toBe(false)
  expect(boxes.every(([l, t, r, b]) => l >= 0 && t >= 0 && r <= 400 && b <= 300)).toBe(true)
})

it('turns a box of the drawing, y up, into one of the screen', () => {
  expect(seen([10, 20, 30, 60], ([x, y]) => [x, 100 - y])).toEqual([10, 40, 30, 80])
})
