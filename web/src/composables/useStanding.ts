import { useJob } from '../stores/job'
import { makePlacing } from './placingEdits'

/** Stands parts up: where, and which loose copy is taken for it, is the core's to say. */
export function useStanding() {
  const job = useJob()
  const ids = () => new Set((job.design!.placements as { id: string }[]).map(({ id }) => id))

  /** One more of a part; tells the new placement. */
  async function stand(part: string): Promise<string | null> {
    const known = ids()
    const done = await makePlacing({ act: 'stand', part, steps: [], unit: 'mm' })
    return done ? ([...ids()].find((id) => !known.has(id)) ?? null) : null
  }

  return { stand }
}
