import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useAnswer } from '../../foundation/useAnswer'
import { useViewpoint } from '../../foundation/useViewpoint'
import { type Filter, linesOf, noFilter, rowsOf } from './dateRows'
import { questions } from '../../foundation/api/questions'

const names = Object.keys(noFilter) as (keyof Filter)[]

/** The table of dates and what of it is shown; the filter stands in the address, so that it can be sent and come back to. */
export function useDates(props: { edition: number }) {
  const viewpoint = useViewpoint()
  const route = useRoute()
  const router = useRouter()
  const dates = useAnswer(() => questions.dates(props.edition, viewpoint.query.value))
  const filter = computed<Filter>({
    get: () => ({ ...noFilter, ...Object.fromEntries(names.map((name) => [name, `${route.query[name] ?? ''}`])) }),
    set: (wanted) => {
      const query = { ...route.query }
      for (const name of names)
        if (wanted[name]) query[name] = wanted[name]
        else Reflect.deleteProperty(query, name)
      void router.replace({ query })
    },
  })
  const lines = computed(() => (dates.data.value ? linesOf(dates.data.value, filter.value) : []))
  const rows = computed(() => rowsOf(lines.value))
  return { dates, filter, lines, rows }
}
