import { computed } from 'vue'
import { useRoute } from 'vue-router'

/** The moment and the eyes, as they stand in the address: a view can be sent to a colleague as it is. */
export function useViewpoint() {
  const route = useRoute()
  const query = computed(() => {
    const { at, as } = route.query
    return { ...(typeof at === 'string' && { at }), ...(typeof as === 'string' && { as }) }
  })
  const key = computed(() => new URLSearchParams(query.value).toString())
  /** Whether one looks through a student's eyes, or at another moment: then nothing is recorded. */
  const isOnesOwn = computed(() => key.value === '')
  return { query, key, isOnesOwn }
}
