import type { LocationQuery, RouteLocationRaw } from 'vue-router'
import type { Schemas } from '../../foundation/api/client'

/** The place that a mend names, open where it is done; the moment in view, which is in the address, stays. */
export function placeOf(
  { screen, section, item, field, row }: Schemas['TodayMend'],
  edition: number,
  query: LocationQuery,
): RouteLocationRaw | null {
  if (!screen) return null
  if (screen === 'one-student')
    return {
      name: screen,
      params: { edition, student: Number(row?.replace('student-', '')) },
      query: { ...query, section: section ?? undefined },
    }
  if (screen === 'work')
    return {
      name: screen,
      params: { edition },
      query: {
        ...query,
        section: section ?? undefined,
        item: item ?? undefined,
        student: row?.replace('student-', '') ?? undefined,
      },
    }
  const open =
    screen === 'conditions'
      ? { place: row }
      : screen === 'dates'
        ? { section, item, field }
        : screen === 'sections'
          ? { section, shows: field, row }
          : { row }
  return {
    name: screen,
    params: { edition },
    query: {
      ...query,
      ...Object.fromEntries(Object.entries(open).map(([key, value]) => [key, value ?? undefined])),
    },
  }
}
