import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'

/** The section in view. It stands in the address: whichever screen it is chosen on, the others follow. */
export function useSection() {
  const route = useRoute()
  const router = useRouter()
  const section = computed(() => {
    const written = Number(route.query.section)
    return Number.isSafeInteger(written) && written > 0 ? written : null
  })

  /** Chooses another, or none; what else stands in the address stays, but for what is named. */
  const choose = (wanted: number | null, without: readonly string[] = []) =>
    router.replace({
      query: {
        ...route.query,
        ...Object.fromEntries(without.map((part) => [part, undefined])),
        section: wanted ?? undefined,
      },
    })
  return { section, choose }
}
