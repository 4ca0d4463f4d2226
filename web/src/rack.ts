import type { Way } from './api/client'
import { shortText, splitLengths, type Style } from './units'

/** Corners as they are typed and shown: "0 0; 380 0; 380 90". */
export function cornersText(outline: readonly (readonly [number, number])[], style: Style): string {
  return outline.map(([x, y]) => `${shortText(x, style)} ${shortText(y, style)}`).join('; ')
}

/** Corners as typed, lengths still texts; "380 × 90" is a rectangle. What has no y keeps an empty one, for the core to refuse. */
export function readCorners(text: string): [string, string][] {
  const sides = /^([^;]+?)\s*[×x]\s*([^;]+)$/.exec(text.trim())
  if (sides) {
    const [width, height] = [sides[1]!.trim(), sides[2]!.trim()]
    return [['0', '0'], [width, '0'], [width, height], ['0', height]] // prettier-ignore
  }
  return text
    .split(';')
    .map(splitLengths)
    .filter(([x]) => x)
    .map(([x, y]) => [x!, y ?? ''])
}

export const WAY_TITLES: Record<Way, string> = {
  slats: 'row of slats',
  plug: 'plug and hole',
  comb: 'fit comb',
}

/** Those that may be chosen, the tightest first. */
export const FITS = ['press', 'snug', 'slide', 'free'] as const

/** Hands a file to the browser to keep. */
export function save(data: Blob, name: string): void {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(data)
  link.download = name
  link.click()
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000)
}
