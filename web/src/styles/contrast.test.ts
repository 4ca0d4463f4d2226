import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'

/** Contrast by the formula of WCAG 2.2 (relative luminance and contrast ratio), over the tokens of both themes. */

const css = readFileSync(join(import.meta.dirname, 'tokens.css'), 'utf8')
const [light, dim] = css
  .split(":root[data-theme='dim']")
  .map(
    (block) =>
      new Map([...block.matchAll(/--([\w-]+): (#[0-9a-f]{6})\b/g)].map(([, name, hex]) => [name!, hex!])),
  ) as [Map<string, string>, Map<string, string>]

function luminance(hex: string): number {
  const [r, g, b] = [1, 3, 5].map((at) => {
    const c = parseInt(hex.slice(at, at + 2), 16) / 255
    return c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4
  }) as [number, number, number]
  return 0.2126 * r + 0.7152 * g + 0.0722 * b
}

function contrast(one: string, other: string): number {
  const [low, high] = [luminance(one), luminance(other)].sort((a, b) => a - b) as [number, number]
  return (high + 0.05) / (low + 0.05)
}

const TEXT = 4.5
const GRAPHIC = 3

/** What is seen on what, and how much of a difference it needs. */
const PAIRS: [string, string, number][] = [
  ...['ink', 'second', 'deep', 'ochre-text', 'bad'].flatMap((text) =>
    ['ground', 'panel', 'sheet'].map((on): [string, string, number] => [text, on, TEXT]),
  ),
  ['ink', 'deep-wash', TEXT],
  ['deep', 'deep-wash', TEXT],
  ['second', 'deep-wash', TEXT],
  ['ochre-text', 'ochre-wash', TEXT],
  ['ink', 'ochre-wash', TEXT],
  ['second', 'ochre-wash', TEXT],
  ['ink', 'bad-wash', TEXT],
  ['bad', 'bad-wash', TEXT],
  ['on-deep', 'deep', TEXT],
  ['title-ink', 'title', TEXT],
  ['title-second', 'title', TEXT],
  ['ink', 'board', TEXT],
  ['edge', 'panel', GRAPHIC],
  ['edge', 'sheet', GRAPHIC],
  ['third', 'panel', GRAPHIC],
  ['silhouette', 'panel', GRAPHIC],
  ['path', 'sheet', GRAPHIC],
  ['path', 'board', GRAPHIC],
  ['ochre', 'sheet', GRAPHIC],
  ...['score', 'engrave', 'pocket', 'fold', 'reference'].flatMap((work) =>
    ['sheet', 'board'].map((on): [string, string, number] => [work, on, GRAPHIC]),
  ),
]

describe.each([
  ['light', light],
  ['dark', dim],
])('in the %s theme', (_, tokens) => {
  const colour = (name: string) => tokens.get(name) ?? light.get(name)!

  it.each(PAIRS)('%s on %s differs enough', (one, other, least) => {
    expect(contrast(colour(one), colour(other))).toBeGreaterThanOrEqual(least)
  })
})

it('the formula is WCAG’s: black on white is 21 to 1, a colour on itself 1 to 1', () => {
  expect(contrast('#000000', '#ffffff')).toBeCloseTo(21, 5)
  expect(contrast('#777777', '#777777')).toBe(1)
  expect(contrast('#777777', '#ffffff')).toBeCloseTo(4.48, 2) // the best known grey that just fails
})
