import { api, Problem } from '../api/client'
import { useJob } from '../stores/job'
import { useSettings } from '../stores/settings'

/** A free outline's nodes, changed by hand: the core makes edits of what is wanted. What cannot be is said where it was done. */
export function useNodes(part: () => string, step: () => string) {
  const job = useJob()
  const settings = useSettings()

  async function ask(
    act: 'node-move' | 'node-add' | 'node-bend',
    node: string,
    dx = 0,
    dy = 0,
  ): Promise<boolean> {
    try {
      const asked = { act, part: part(), steps: [step()], node, dx, dy, unit: settings.unit }
      const { edits } = await api.placing(job.design!.id, asked)
      return !edits.length || (await job.edit(...(edits as unknown as Parameters<typeof job.edit>)))
    } catch (error) {
      if (!(error instanceof Problem)) throw error
      job.problem = error
      return false
    }
  }

  return {
    move: (node: string, dx: number, dy: number) => ask('node-move', node, dx, dy),
    add: (after: string) => ask('node-add', after),
    bend: (node: string, dx: number, dy: number) => ask('node-bend', node, dx, dy),
    remove: (node: string) =>
      job.edit({ verb: 'drop', path: `parts/${part()}/steps/${step()}/shape/nodes/${node}` }),
  }
}
