/** One choice of a list: what it is called, what is told of it below, and under which heading it stands. */
export interface Option<Value extends string | number = string> {
  value: Value
  label: string
  detail?: string
  group?: string
  disabled?: boolean
}

/** Options from plain words or from names with their titles. */
export const optionsOf = (from: readonly string[] | Readonly<Record<string, string>>): Option[] =>
  Array.isArray(from)
    ? from.map((word: string) => ({ value: word, label: word || 'not given' }))
    : Object.entries(from as Record<string, string>).map(([value, label]) => ({ value, label }))
