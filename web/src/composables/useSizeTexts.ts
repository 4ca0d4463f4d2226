import type { RecipeView } from '../api/client'
import type { Size } from '../geometry/recipePicture'

type Side = 'columns' | 'rows'

interface Given {
  readonly views: readonly RecipeView[]
  readonly texts: Readonly<Record<string, string>>
}
interface Tell {
  begin: () => void
  answer: (setting: string, text: string) => void
  remove: (side: Side, entry: number) => void
}

const TRACKS = { columns: 'column', rows: 'row' } as const

/** What is typed at a recipe's sizes: a setting's text, or one entry of a list of tracks. */
export function useSizeTexts(given: Given, tell: Tell) {
  /** The text of a size's setting: of a track list the entry that it shows. */
  const textOf = (size: Size) => size.typed || (given.texts[size.setting] ?? '')
  const entriesOf = (setting: string) =>
    given.views.flatMap(({ sizes }) => sizes.filter((one) => one.setting === setting && one.typed))

  /** A track list with another entry; what has blanks in it stands in brackets. */
  function listWith(setting: string, entry: number, text: string, texts = textsOf(setting)): string {
    const word = (one: string) => (/\s/.test(one) && !/^\(.*\)$/.test(one) ? `(${one})` : one)
    return texts.map((one, i) => word(i === entry ? text.trim() : one)).join(' ')
  }
  const textsOf = (setting: string) => entriesOf(setting).map(({ typed }) => typed!)

  /** The list as it was when an entry of it was opened: what is typed there may become several while it is open. */
  let opened: { setting: string; entry: number; texts: string[] } | null = null
  function begin(size: Size): void {
    opened = size.typed ? { setting: size.setting, entry: entryOf(size), texts: textsOf(size.setting) } : null
    tell.begin()
  }

  /** A list typed in place of one entry goes in as it is; one that is emptied waits: kept empty, it is taken out. */
  function answer(size: Size, text: string): void {
    if (!size.typed) tell.answer(size.setting, text)
    else if (opened && text.trim())
      tell.answer(opened.setting, listWith(opened.setting, opened.entry, text, opened.texts))
  }

  function keep(size: Size, text: string): void {
    if (size.typed && !text.trim()) tell.remove(size.setting as Side, entryOf(size))
    else answer(size, text)
  }

  const entryOf = (size: Size) => entriesOf(size.setting).indexOf(size)
  const trackOf = (size: Size) => (size.typed ? TRACKS[size.setting as Side] : '')

  return { TRACKS, listWith, textOf, begin, answer, keep, entryOf, trackOf, entriesOf }
}
