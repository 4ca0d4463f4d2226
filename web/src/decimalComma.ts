import { roundedText, type Style } from './units'

/** Three digits behind a comma may be decimals or thousands, and the core refuses them; where the reader's language writes decimals
 * with a comma they are decimals. Lists in brackets, as in max(1,200), and repeated commas stay as they are. */
export function withPoint(text: string, style: Pick<Style, 'locale'>): string {
  if (roundedText(0.5, 1, style).charAt(1) !== ',' || /[a-z]\s*\(/i.test(text)) return text
  return text.replace(/(?<![\d.,])([1-9]\d{0,2}),(\d{3})(?![\d.,])/g, '$1.$2')
}

/** Does that in every field for figures while it is typed in, before anything else reads the field. */
export function readDecimalCommas(style: () => Pick<Style, 'locale'>): void {
  document.addEventListener(
    'input',
    ({ target: field }) => {
      if (!(field instanceof HTMLInputElement) || !field.closest('.figure')) return
      const point = withPoint(field.value, style())
      if (point === field.value) return
      const caret = field.selectionStart
      field.value = point
      field.setSelectionRange(caret, caret)
    },
    { capture: true },
  )
}
