import { type ComputedRef, type InjectionKey, computed, inject, provide } from 'vue'
import type { SchoolDays } from './typedDate'

const key: InjectionKey<ComputedRef<SchoolDays>> = Symbol('school days')

// Where nothing is known of a term: this year, as the device has it. It only serves to guess a year that was not written.
function thisYear(): SchoolDays {
  const today = new Date().toISOString().slice(0, 10)
  return { today, first: `${today.slice(0, 4)}-01-01`, last: `${today.slice(0, 4)}-12-31`, classDays: [] }
}

/** Says for every date field below which term it is written in. */
export const provideSchoolDays = (days: () => SchoolDays | undefined): void =>
  provide(
    key,
    computed(() => days() ?? thisYear()),
  )

export const useSchoolDays = (): ComputedRef<SchoolDays> => inject(key, () => computed(thisYear), true)
