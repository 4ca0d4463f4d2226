import { shallowRef } from 'vue'

import { Problem } from '../api/client'

/** What was last asked of the server, and what was wrong with it. Anything else that goes wrong is not caught here. */
export function useProblem() {
  const problem = shallowRef<Problem | null>(null)

  /** Tells whether it went well. */
  async function tell(act: () => Promise<void>): Promise<boolean> {
    problem.value = null
    try {
      await act()
      return true
    } catch (error) {
      if (!(error instanceof Problem)) throw error
      problem.value = error
      return false
    }
  }

  return { problem, tell }
}
