import { useMediaQuery, useStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, watchEffect } from 'vue'

import type { Finest, Style, Unit } from '../units'

export type FreeKey = 'Alt' | 'Control' | 'Shift'
export type Theme = 'light' | 'dim'
/** "" follows the system. */
export type ThemeChoice = Theme | ''

/** How this browser shows things: unit, fractions, language of numbers, theme. Kept from visit to visit. */
export const useSettings = defineStore('settings', () => {
  const unit = useStorage<Unit>('unit', 'mm')
  const finest = useStorage<Finest>('fractions', 64)
  const locale = useStorage('numbers', '')
  /** What this browser prints on. */
  const paper = useStorage('paper', 'A4')
  /** How far an arrow key moves what is selected, in mm; and the key that leaves the grid while something is dragged. */
  const nudgeMm = useStorage('nudge', 1)
  const freeKey = useStorage<FreeKey>('free-key', 'Alt')
  const themeChoice = useStorage<ThemeChoice>('theme', '')

  const systemIsDark = useMediaQuery('(prefers-color-scheme: dark)')
  const theme = computed<Theme>(() => themeChoice.value || (systemIsDark.value ? 'dim' : 'light'))
  const style = computed<Style>(() => ({ unit: unit.value, locale: locale.value, finest: finest.value }))

  watchEffect(() => (document.documentElement.dataset['theme'] = theme.value))

  return { unit, finest, locale, paper, nudgeMm, freeKey, themeChoice, theme, style }
})
