import { defineStore } from 'pinia'
import { ref, watchEffect } from 'vue'

import type { Unit } from '../units'

export type Theme = 'light' | 'dim'

/** How this browser likes it: unit and theme, kept from visit to visit. */
export const useSettings = defineStore('settings', () => {
  const unit = ref<Unit>(localStorage.getItem('unit') === 'in' ? 'in' : 'mm')
  const theme = ref<Theme>((localStorage.getItem('theme') as Theme | null) ?? preferred())

  watchEffect(() => {
    localStorage.setItem('unit', unit.value)
    localStorage.setItem('theme', theme.value)
    document.documentElement.dataset['theme'] = theme.value
  })

  return { unit, theme }
})

function preferred(): Theme {
  return window.matchMedia?.('(prefers-color-scheme: dark)').matches ? 'dim' : 'light'
}
