import { useEventListener } from '@vueuse/core'
import { ref } from 'vue'

/** Whether the list of all keys is open. */
export const keysShown = ref(false)

/** What the keys of a page do; fields keep theirs. */
export interface Acts {
  undo?: () => void
  redo?: () => void
  escape?: () => void
  help?: () => void
  /** What the page decides, and what usually goes wrong there. */
  about?: () => void
  next?: () => void
  previous?: () => void
  find?: () => void
  measure?: () => void
}

const COMMANDS: Record<string, keyof Acts> = { z: 'undo', y: 'redo' }
const PLAIN: Record<string, keyof Acts> = {
  escape: 'escape',
  '?': 'help',
  h: 'about',
  n: 'next',
  p: 'previous',
  '/': 'find',
  m: 'measure',
}

export function useShortcuts(act: Acts): void {
  function onKey(event: KeyboardEvent): void {
    if (
      event.defaultPrevented ||
      event.altKey ||
      isField(event.target) ||
      document.querySelector('.el-overlay-dialog')
    )
      return
    const key = event.key.toLowerCase()
    const command = event.ctrlKey || event.metaKey
    const wanted = command ? COMMANDS[key === 'z' && event.shiftKey ? 'y' : key] : PLAIN[key]
    const run = wanted && act[wanted]
    if (!run) return
    run()
    event.preventDefault()
  }
  useEventListener(window, 'keydown', onKey)
}

function isField(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    target.matches('input:not([type=radio], [type=checkbox]), textarea, select')
  )
}
