import { onBeforeUnmount, onMounted } from 'vue'

/** Undo and redo by the platform's own keys while a job is open; fields keep theirs. */
export function useShortcuts(act: { undo: () => void; redo: () => void }): void {
  function onKey(event: KeyboardEvent): void {
    if (!(event.ctrlKey || event.metaKey) || event.altKey || isField(event.target)) return
    const key = event.key.toLowerCase()
    if (key === 'z') (event.shiftKey ? act.redo : act.undo)()
    else if (key === 'y') act.redo()
    else return
    event.preventDefault()
  }
  onMounted(() => window.addEventListener('keydown', onKey))
  onBeforeUnmount(() => window.removeEventListener('keydown', onKey))
}

function isField(target: EventTarget | null): boolean {
  return target instanceof HTMLElement && target.matches('input, textarea, select')
}
