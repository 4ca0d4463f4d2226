import { api, Problem, type PlacingIn } from '../api/client'
import { useJob } from '../stores/job'

/** Lets the core make edits of what is wanted of places, and makes them. What cannot be is said at its field; tells whether it was
 * done. */
export async function makePlacing(asked: PlacingIn): Promise<boolean> {
  const job = useJob()
  try {
    const { edits } = await api.placing(job.design!.id, asked)
    return !edits.length || (await job.edit(...(edits as unknown as Parameters<typeof job.edit>)))
  } catch (error) {
    if (!(error instanceof Problem)) throw error
    job.problem = error
    return false
  }
}
