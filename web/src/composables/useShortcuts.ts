import { useEventListener } from '@vueuse/core'

/** What the keys of a page do; fields keep theirs. */
export interface Acts {
  undo: () => void
  redo: () => void
  escape?: () => void
  help?: () => void
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
    if (command && key === 'z') (event.shiftKey ? act.redo : act.undo)()
    else if (command && key === 'y') act.redo()
    else if (!command && key === 'escape' && act.escape) act.escape()
    else if (!command && key === '?' && act.help) act.help()
    else return
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
