import { defineStore } from 'pinia'
import { computed, shallowRef } from 'vue'

import { api, type Choices, type FileFormat } from '../api/client'

/** What the core offers to choose from: the same for everybody, asked for once. */
export const useChoices = defineStore('choices', () => {
  const choices = shallowRef<Choices | null>(null)
  let asked: Promise<Choices> | null = null

  function load(): Promise<Choices> {
    asked ??= api.choices().then(
      (found) => (choices.value = found),
      (error: unknown) => {
        asked = null
        throw error
      },
    )
    return asked
  }

  /** After something of the workshop's own was added to it. */
  function reload(): Promise<Choices> {
    asked = null
    return load()
  }

  const operations = computed(() => choices.value?.operations ?? {})
  const formats = computed(() => choices.value?.formats ?? [])
  const formatName = (format: FileFormat) =>
    formats.value.find((one) => one.format === format)?.title ?? format.toUpperCase()
  return { choices, operations, formats, formatName, load, reload }
})
