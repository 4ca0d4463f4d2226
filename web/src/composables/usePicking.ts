import { useJob } from '../stores/job'

/** What a drawing of the job does with clicks: what carries a pick is selected, the paper unselects. */
export function usePicking() {
  const job = useJob()

  const pickAt = (target: Element): string => target.closest<SVGElement>('[data-pick]')?.dataset['pick'] ?? ''

  /** A second click on what is selected unselects it. */
  function onPick(target: Element): void {
    const found = pickAt(target)
    job.selected = found === job.selected ? '' : found
  }

  function onMenu(target: Element, at: readonly [number, number]): void {
    const found = pickAt(target)
    if (!found) return
    job.selected = found
    job.menuAt = at
  }

  return { onPick, onMenu }
}
