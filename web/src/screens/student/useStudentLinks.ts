import { useViewpoint } from '../../foundation/useViewpoint'

/** Where a student's screens lead: to one another, and through a lens to the same under it. */
export function useStudentLinks(props: { edition?: number; section: number }) {
  const viewpoint = useViewpoint()
  const to = (own: string, seen: string, params: Record<string, number>) =>
    props.edition === undefined
      ? { name: own, params: { section: props.section, ...params } }
      : {
          name: seen,
          params: { edition: props.edition, section: props.section, ...params },
          query: viewpoint.query.value,
        }
  return {
    now: () => to('now', 'seen', {}),
    scores: () => to('own-scores', 'seen-scores', {}),
    unit: (unit: number) => to('student-unit', 'seen-unit', { unit }),
    item: (item: number) => to('student-item', 'seen-item', { item }),
  }
}
