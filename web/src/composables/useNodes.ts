import { useJob } from '../stores/job'
import { useSettings } from '../stores/settings'
import { makePlacing } from './placingEdits'

/** A free outline's nodes, changed by hand: the core makes edits of what is wanted. What cannot be is said where it was done. */
export function useNodes(part: () => string, step: () => string) {
  const job = useJob()
  const settings = useSettings()

  const ask = (act: 'node-move' | 'node-add' | 'node-bend', node: string, dx = 0, dy = 0) =>
    makePlacing({ act, part: part(), steps: [step()], node, dx, dy, unit: settings.unit })

  return {
    move: (node: string, dx: number, dy: number) => ask('node-move', node, dx, dy),
    add: (after: string) => ask('node-add', after),
    bend: (node: string, dx: number, dy: number) => ask('node-bend', node, dx, dy),
    remove: (node: string) =>
      job.edit({ verb: 'drop', path: `parts/${part()}/steps/${step()}/shape/nodes/${node}` }),
  }
}
