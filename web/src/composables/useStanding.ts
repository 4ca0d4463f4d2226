import { api } from '../api/client'
import { useJob } from '../stores/job'

/** Stands parts up: where, and which loose copy is taken for it, is the core's to say. */
export function useStanding() {
  const job = useJob()
  const ids = () => new Set((job.design!.placements as { id: string }[]).map(({ id }) => id))

  /** One more of a part; tells the new placement. */
  async function stand(part: string): Promise<string | null> {
    const known = ids()
    let done = false
    await job.attempt(async () => {
      const { edits } = await api.placing(job.design!.id, { act: 'stand', part, steps: [], unit: 'mm' })
      done = await job.edit(...(edits as unknown as Parameters<typeof job.edit>))
    })
    return done ? ([...ids()].find((id) => !known.has(id)) ?? null) : null
  }

  return { stand }
}
