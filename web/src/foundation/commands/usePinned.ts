import { ref } from 'vue'
import type { Problem } from '../api/client'

/**
 * The version that was read when one began to change something. It stays, whatever arrives meanwhile, so that somebody
 * else's change is noticed; and is let go knowingly.
 */
export function usePinned(version: number) {
  const pinned = ref(version)
  return {
    version: pinned,
    /** From now on over what stands there now. */
    overTheirs(problem: Problem | null): void {
      if (problem?.conflict?.version) pinned.value = problem.conflict.version
    },
  }
}
