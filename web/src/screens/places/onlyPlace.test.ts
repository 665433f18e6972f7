import { expect, it } from 'vitest'
import { onlyPlace } from './onlyPlace'

type Places = Parameters<typeof onlyPlace>[0]
const course = (edition: number, state: string) => ({ edition, state }) as Places['courses'][number]
const section = (id: number) => ({ section: id }) as Places['sections'][number]
const places = (courses: Places['courses'], sections: Places['sections'] = []): Places => ({
  name: 'Orla Tierney-Vance',
  school: 'Fenwater College',
  isOffice: false,
  makesCourses: true,
  courses,
  sections,
  terms: [],
  schoolCourses: [],
})

it('opens the only course or section at once, whatever lies in the past', () => {
  expect(onlyPlace(places([course(2, 'current'), course(1, 'resting')]))).toEqual({
    name: 'today',
    params: { edition: 2 },
  })
  expect(onlyPlace(places([], [section(7)]))).toEqual({ name: 'now', params: { section: 7 } })
})

it('leaves the choice where there is one, and where there is nothing', () => {
  expect(onlyPlace(places([course(2, 'current'), course(3, 'draft')]))).toBeNull()
  expect(onlyPlace(places([course(2, 'current')], [section(7)]))).toBeNull()
  expect(onlyPlace(places([course(1, 'resting')]))).toBeNull()
})
