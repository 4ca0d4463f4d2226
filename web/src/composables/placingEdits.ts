import { api, Problem, type Edit, type PlacingIn } from '../api/client'
import { useJob } from '../stores/job'

/** Lets the core make edits of what is wanted of places, and makes them. What cannot be is said at its field; tells whether it was
 * done. */
export const makePlacing = async (asked: PlacingIn): Promise<boolean> => (await placed(asked)) !== null

/** The same; the edits that were made, null where it could not be done. */
export async function placed(asked: PlacingIn): Promise<Edit[] | null> {
  const job = useJob()
  try {
    const { edits } = await api.placing(job.design!.id, asked)
    return !edits.length || (await job.edit(...edits)) ? edits : null
  } catch (error) {
    if (!(error instanceof Problem)) throw error
    job.problem = error
    return null
  }
}
