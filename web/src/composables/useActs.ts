import { useRouter } from 'vue-router'

import type { Part, Step } from '../api/client'
import { freeName } from '../steps'
import { makePlacing } from './placingEdits'
import { useCopied } from './useCopied'
import { useJob } from '../stores/job'

/** One thing that can be done with what is selected: a word, and the doing. */
export interface Act {
  name: string
  run: () => unknown
  disabled?: boolean
}

interface Member {
  placement: string
  edge: string
}

const counted = (count: number, what: string) => `${count} ${what}${count === 1 ? '' : 's'}`

/** What can be done with parts, steps, joints and edges: the same acts in the ledger and in the menu on a drawing. */
export function useActs() {
  const job = useJob()
  const router = useRouter()
  const { copied, copy, paste } = useCopied()
  const partIds = () => job.design!.parts.map(({ id }) => id)

  /** Behind another one of the list, or in front: "" is the very front. */
  function moveIn(ids: readonly string[], id: string, by: -1 | 1, path: string): void {
    const index = ids.indexOf(id)
    const rest = ids.filter((one) => one !== id)
    void job.edit({ verb: 'move', path, after: rest[index + by - 1] ?? '' })
  }

  /** As the document has it: what an edit puts. */
  function documentOf({ title, board, steps }: Part): Record<string, unknown> {
    return { title, board, loose: 1, steps: steps.map(({ document }) => document) }
  }

  async function duplicatePart(part: Part): Promise<void> {
    const id = freeName(part.id.replace(/-\d+$/, ''), partIds())
    const value = { ...documentOf(part), title: `${part.title}, copy` }
    if (await job.edit({ verb: 'put', path: `parts/${id}`, value, after: part.id })) job.pick('part', id)
  }

  async function removePart(part: Part): Promise<void> {
    if (await job.edit({ verb: 'drop', path: `parts/${part.id}` })) job.selected = ''
  }

  function ofPart(part: Part): Act[] {
    const ids = partIds()
    const path = `parts/${part.id}`
    return [
      { name: 'Duplicate', run: () => duplicatePart(part) },
      { name: 'Move up', run: () => moveIn(ids, part.id, -1, path), disabled: ids[0] === part.id },
      { name: 'Move down', run: () => moveIn(ids, part.id, 1, path), disabled: ids.at(-1) === part.id },
      ...(copied.value.length
        ? [{ name: `Paste ${counted(copied.value.length, 'step')}`, run: () => paste(part) }]
        : []),
      {
        name: job.hidden.has(part.id) ? 'Show' : 'Hide',
        run: () => job.hide(part.id),
      },
      { name: 'Remove', run: () => removePart(part) },
    ]
  }

  /** The copy stands behind the step it was made of. */
  async function duplicateStep(part: Part, { id, document }: Step): Promise<void> {
    const name = freeName(id.replace(/-\d+$/, ''), part.steps.map((step) => step.id)) // prettier-ignore
    const value = { ...document, id: name, title: '' }
    if (await job.edit({ verb: 'put', path: `parts/${part.id}/steps/${name}`, value, after: id }))
      job.pick('step', part.id, name)
  }

  function ofStep(part: Part, step: Step): Act[] {
    const ids = part.steps.map(({ id }) => id)
    const path = `parts/${part.id}/steps/${step.id}`
    return [
      { name: 'Duplicate', run: () => duplicateStep(part, step) },
      { name: 'Copy', run: () => copy([step]) },
      {
        name: job.hidden.has(`${part.id}/${step.id}`) ? 'Show' : 'Hide',
        run: () => job.hide(`${part.id}/${step.id}`),
      },
      {
        name: step.on ? 'Switch off' : 'Switch on',
        run: () => job.edit({ verb: 'switch', path, value: !step.on }),
      },
      { name: 'Move up', run: () => moveIn(ids, step.id, -1, path), disabled: ids[0] === step.id },
      { name: 'Move down', run: () => moveIn(ids, step.id, 1, path), disabled: ids.at(-1) === step.id },
      { name: 'Remove', run: () => removeStep(part, path) },
    ]
  }

  /** Of several steps at once: each is one edit, all of them one revision. */
  function ofSteps(part: Part, steps: readonly Step[]): Act[] {
    const path = ({ id }: Step) => `parts/${part.id}/steps/${id}`
    const on = steps.some((step) => step.on)
    return [
      { name: 'Copy', run: () => copy(steps) },
      {
        name: on ? 'Switch off' : 'Switch on',
        run: () =>
          job.edit(...steps.map((step) => ({ verb: 'switch' as const, path: path(step), value: !on }))),
      },
      { name: 'Hide', run: () => steps.forEach(({ id }) => job.hide(`${part.id}/${id}`, true)) },
      {
        name: 'Remove',
        run: async () => {
          const edits = steps.map((step) => ({ verb: 'drop' as const, path: path(step) }))
          if (await job.edit(...edits)) job.pick('part', part.id)
        },
      },
    ]
  }

  async function removeStep(part: Part, path: string): Promise<void> {
    if (await job.edit({ verb: 'drop', path })) job.pick('part', part.id)
  }

  function ofJoint(id: string): Act[] {
    const { first, second } = job.design!.joints.find((one) => one['id'] === id) ?? {}
    const path = `joints/${id}`
    return [
      {
        name: 'Swap first and second',
        run: () =>
          job.edit(
            { verb: 'put', path: `${path}/first`, value: second },
            { verb: 'put', path: `${path}/second`, value: first },
          ),
      },
      { name: 'Remove', run: () => job.edit({ verb: 'drop', path }) },
      ...covering(id, first as Member | undefined, second as Member | undefined),
    ]
  }

  /** Without its joint one part of a corner covers the other, which becomes shorter by a board. */
  function covering(joint: string, first?: Member, second?: Member): Act[] {
    if (!first || !second || first.edge === 'face' || second.edge === 'face') return []
    return [first, second].map(({ placement }) => ({
      name: `Remove, ${titleAt(placement)} covers`,
      run: () => makePlacing({ act: 'cover', of: joint, to: placement, part: '', steps: [], unit: 'mm' }),
    }))
  }
  function titleAt(placement: string): string {
    const part = (job.design!.placements as { id: string; part: string }[]).find(
      ({ id }) => id === placement,
    )?.part
    return job.design!.parts.find(({ id }) => id === part)?.title ?? placement
  }

  /** Of whatever is selected, and the way to where its numbers are. */
  function ofSelected(): Act[] {
    const { part: id, step: stepId, joint } = job.picked
    if (joint) return [{ name: 'Open at Join', run: () => router.push({ name: 'join' }) }, ...ofJoint(joint)]
    const part = job.design?.parts.find((one) => one.id === id)
    if (!part) return []
    const step = part.steps.find((one) => one.id === stepId)
    const open = { name: 'Open at Shape', run: () => router.push({ name: 'shape' }) }
    const several = part.steps.filter((one) => job.steps.includes(one.id))
    if (several.length > 1) return [open, ...ofSteps(part, several)]
    return [open, ...(step ? ofStep(part, step) : ofPart(part))]
  }

  return { ofPart, ofStep, ofSteps, ofJoint, ofSelected }
}
