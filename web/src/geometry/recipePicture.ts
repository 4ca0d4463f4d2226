import type { RecipeView } from '../api/client'
import type { Box, Point } from './view'

export type Size = RecipeView['sizes'][number]
type Side = 'below' | 'right' | 'above' | 'left'

export interface PlacedView {
  view: RecipeView
  /** Where its lower left corner lies, and its upper edge, in px. */
  x: number
  base: number
  top: number
  /** What lies at that corner, in mm. */
  zero: Point
  /** Where its title stands. */
  title: Point
}

export interface PlacedSize {
  key: string
  size: Size
  from: Point
  to: Point
  /** From the drawing to the ends of the line. */
  feet: string
  /** The middle of the number. */
  at: Point
  says: string
}

export interface RecipePicture {
  /** px a mm. */
  scale: number
  places: PlacedView[]
  sizes: PlacedSize[]
  /** Where one more column or row is added. */
  additions: { side: 'columns' | 'rows'; at: Point }[]
}

const NARROW_PX = 560
const LINE_PX = 34
const LEVEL_PX = 27
const [LEFT, TOP, GAP] = [16, 46, 52]
const TITLE_PX = 120
/** What a number of a size takes, and each letter of what it says. */
const [NUMBER_PX, HIGH_PX, LETTER_PX] = [80, 26, 7]
const WORDS_PX = 112
const BUTTON_PX = 28
const MOST_LEVELS = 6
/** A number beside the drawing slides along its line before it leaves it. */
const SLID = [0, 14, -14, 27, -27]

type Levels = Record<Side, number>[]
interface Frame {
  width: number
  height: number
}

/** Views of a recipe one below the other, as large as everything fits, no number on another; while something is dragged the scale
 * is held. In a narrow window a size beside the drawing that only follows is left out: there would be no drawing left. */
export function recipePicture(
  given: readonly RecipeView[],
  frame: Frame,
  held: number | null = null,
): RecipePicture {
  const narrow = frame.width < NARROW_PX
  const views = narrow ? given.map((view) => ({ ...view, sizes: view.sizes.filter(standsNarrow) })) : given
  let levels: Levels = views.map(() => ({ above: 0, below: 0, left: 0, right: 0 }))
  for (;;) {
    const { picture, needed } = drawn(views, frame, held, levels)
    const more = needed.some((one, i) => SIDES.some((side) => one[side] > levels[i]![side]))
    if (!more) return picture
    levels = needed.map((one, i) => atLeast(one, levels[i]!))
  }
}

const SIDES = ['above', 'below', 'left', 'right'] as const
const standsNarrow = ({ side, setting }: Size) => side !== 'right' || Boolean(setting)
const atLeast = (one: Record<Side, number>, other: Record<Side, number>) =>
  Object.fromEntries(SIDES.map((side) => [side, Math.max(one[side], other[side])])) as Record<Side, number>

const least = ({ shapes }: RecipeView, i: 0 | 1) => Math.min(...shapes.map(({ box }) => box[i]!))
const across = (view: RecipeView) => Math.max(...view.shapes.map(({ box }) => box[2]!)) - least(view, 0)
const up = (view: RecipeView) => Math.max(...view.shapes.map(({ box }) => box[3]!)) - least(view, 1)
const rows = ({ sizes }: RecipeView, side: Side) =>
  Math.max(0, ...sizes.filter((one) => one.side === side).map(({ row }) => row + 1))

/** With so much room for numbers that make way; what they took besides. */
function drawn(views: readonly RecipeView[], frame: Frame, held: number | null, levels: Levels) {
  const narrow = frame.width < NARROW_PX
  const [columnPx, besidePx] = narrow ? [62, 34] : [96, 58]
  const beside = (i: number, side: 'left' | 'right') => (rows(views[i]!, side) + levels[i]![side]) * columnPx
  const lines = (i: number, side: 'above' | 'below') =>
    rows(views[i]!, side) * LINE_PX + levels[i]![side] * LEVEL_PX
  const numbers = [...views.keys()]
  const mostBeside = Math.max(0, ...numbers.map((i) => beside(i, 'left') + beside(i, 'right')))
  const taken = numbers.reduce((sum, i) => sum + lines(i, 'above') + lines(i, 'below') + GAP, TOP)
  const wide = Math.max(...views.map(across))
  const tall = views.reduce((sum, view) => sum + up(view), 0)
  const fitting = Math.min((frame.width - LEFT - 48 - mostBeside) / wide, (frame.height - taken) / tall)
  const scale = held ?? (views.length && frame.width ? Math.max(fitting, 0.05) : 1)

  const before = Math.max(0, ...numbers.map((i) => beside(i, 'left')))
  const after = Math.max(0, ...numbers.map((i) => beside(i, 'right')))
  const x = Math.max(LEFT, (frame.width - wide * scale - before - after) / 2) + before
  let y = TOP
  const places = views.map((view, i): PlacedView => {
    const title: Point = [x, y - 12]
    const top = y + lines(i, 'above')
    const base = top + up(view) * scale
    y = base + lines(i, 'below') + GAP
    return { view, x, base, top, zero: [least(view, 0), least(view, 1)], title }
  })

  const stand: Box[] = places.map(({ title: [left, low] }) => [left, low - 16, left + TITLE_PX, low + 4])
  const needed = levels.map(() => ({ above: 0, below: 0, left: 0, right: 0 }))
  const sizes = places.flatMap((place, v) =>
    place.view.sizes.map((size, i): PlacedSize => {
      const line = sizeLine(place, size, scale, columnPx, besidePx, frame.width)
      const [long, high] = [Math.abs(line.to[0] - line.from[0]), HIGH_PX]
      const says = size.side === 'along' || (size.side === 'above' && long < WORDS_PX) ? '' : size.says
      const upright = size.side === 'left' || size.side === 'right'
      const width = upright ? columnPx - 2 : NUMBER_PX + (says ? 5 + says.length * LETTER_PX : 0)
      const boxAt = ([mx, my]: Point): Box => [
        mx - width / 2,
        my - high / 2,
        mx + width / 2,
        my + high / 2 + (upright && says ? 14 : 0),
      ]
      const choices = [...ways(size, line.at, columnPx)]
      const found = Math.max(
        choices.findIndex((at) => stand.every((one) => !over(one, boxAt(at)))),
        0,
      )
      const at = choices[found]!
      const level = upright ? Math.floor(found / SLID.length) : found
      stand.push(boxAt(at))
      if (size.side !== 'along') needed[v]![size.side] = Math.max(needed[v]![size.side], level)
      return { key: `${v}-${i}`, size, ...line, at, says }
    }),
  )
  const additions = added(sizes, stand)
  return { picture: { scale, places, sizes, additions }, needed }
}

const over = (a: Box, b: Box) =>
  Math.min(a[2], b[2]) - Math.max(a[0], b[0]) > 0.5 && Math.min(a[3], b[3]) - Math.max(a[1], b[1]) > 0.5

/** Where a number may stand, the best first: on its line, then further out. */
function* ways({ side }: Size, [x, y]: Point, columnPx: number): Generator<Point> {
  for (let level = 0; level <= MOST_LEVELS; level++) {
    if (side === 'above') yield [x, y - level * LEVEL_PX]
    else if (side === 'below') yield [x, y + level * LEVEL_PX]
    else if (side === 'left') for (const off of SLID) yield [x - level * columnPx, y + off]
    else if (side === 'right') for (const off of SLID) yield [x + level * columnPx, y + off]
    else for (const sense of level ? [1, -1] : [1]) yield [x, y + sense * level * LEVEL_PX]
  }
}

export const onScreen = ({ x, base, zero }: PlacedView, scale: number, [mmX, mmY]: Point): Point => [
  x + (mmX - zero[0]) * scale,
  base - (mmY - zero[1]) * scale,
]

/** A size's line in px: its two ends, the feet that it comes from, and the place of its number. */
function sizeLine(
  place: PlacedView,
  size: Size,
  scale: number,
  columnPx: number,
  besidePx: number,
  width: number,
): { from: Point; to: Point; feet: string; at: Point } {
  const [a, b] = [onScreen(place, scale, size.start), onScreen(place, scale, size.end)]
  if (size.side === 'along') {
    const flat = Math.abs(a[1] - b[1]) < Math.abs(a[0] - b[0])
    const beside = Math.max(a[0], b[0]) + 76 < width ? 34 : -36
    const at: Point = [(a[0] + b[0]) / 2 + (flat ? 0 : beside), (a[1] + b[1]) / 2 + (flat ? 20 : 0)]
    return { from: a, to: b, feet: '', at }
  }
  if (size.side === 'below' || size.side === 'above') {
    const [edge, sense] = size.side === 'below' ? [place.base, 1] : [place.top, -1]
    const y = edge + sense * ((sense > 0 ? 22 : 16) + size.row * LINE_PX)
    const feet = [a, b].map(([x]) => `M${x} ${edge + 3 * sense}V${y + 5 * sense}`).join('')
    return { from: [a[0], y], to: [b[0], y], feet, at: [(a[0] + b[0]) / 2, y] }
  }
  const right = size.side === 'right'
  const edge = right ? place.x + across(place.view) * scale : place.x
  const sense = right ? 1 : -1
  const x = edge + sense * (besidePx - (right ? 0 : 14) + size.row * columnPx)
  const feet = [a, b].map(([, y]) => `M${edge + 3 * sense} ${y}H${x + 5 * sense}`).join('')
  return { from: [x, a[1]], to: [x, b[1]], feet, at: [x, (a[1] + b[1]) / 2] }
}

/** Behind the last column, and behind the last row. */
function added(sizes: readonly PlacedSize[], stand: readonly Box[]): RecipePicture['additions'] {
  return (['columns', 'rows'] as const).flatMap((side) => {
    const last = sizes.filter(({ size }) => size.setting === side && size.typed).at(-1)
    if (!last) return []
    const { from, to } = last
    const spots: Point[] = [0, 1, 2, 3, 4].map((i) =>
      side === 'columns'
        ? [Math.max(to[0], from[0]) + 22 + i * 14, to[1]]
        : [to[0] - i * 14, Math.min(to[1], from[1]) - 22],
    )
    const half = BUTTON_PX / 2
    const free = spots.find(([x, y]) =>
      stand.every((one) => !over(one, [x - half, y - half, x + half, y + half])),
    )
    return [{ side, at: free ?? spots[0]! }]
  })
}
