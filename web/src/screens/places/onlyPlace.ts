import type { RouteLocationRaw } from 'vue-router'
import type { Schemas } from '../../foundation/api/client'

/** The place to open at once after signing in, where somebody has only one; past editions do not count. */
export function onlyPlace({ courses, sections, terms }: Schemas['PlacesAnswer']): RouteLocationRaw | null {
  const current = courses.filter((course) => course.state !== 'resting')
  if (current.length + sections.length + terms.length !== 1) return null
  if (current[0]) return { name: 'today', params: { edition: current[0].edition } }
  if (sections[0]) return { name: 'now', params: { section: sections[0].section } }
  return { name: 'calendar', params: { term: terms[0]!.term } }
}
