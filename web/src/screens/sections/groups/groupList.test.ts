import { expect, test } from 'vitest'
import { groupsOf, readGroups } from './groupList'

const students = [
  { id: 1, name: 'Aino Abara' },
  { id: 2, name: 'Bo Castellan' },
  { id: 3, name: 'Mara Lind' },
  { id: 4, name: 'Mara Lind' },
]
const read = (text: string) =>
  readGroups(text, students).map((line) => ('student' in line ? `${line.student.id} ${line.group}` : line.wrong))

test('a student and a group are read in either order, however divided, below a spreadsheet’s own heads', () => {
  expect(read('Name,Group\nAino Abara,Quay\n\n"Bo Castellan";"Mole, north"')).toEqual(['1 Quay', '2 Mole, north'])
  expect(read('Quay\taino  abara')).toEqual(['1 Quay'])
})

test('what cannot be read is said at its line, and nothing is guessed', () => {
  expect(read('Aino Abara')).toEqual(['a name and a group, with a comma or a tab between them'])
  expect(read('Nobody Here, Quay')).toEqual(['nobody of that name is in this section'])
  expect(read('Mara Lind, Quay')).toEqual(['two students have that name: put one of them in below'])
  expect(read('Aino Abara, Quay\nAino Abara, Mole')).toEqual(['1 Quay', 'Aino Abara is on line 1 already'])
})

test('lines come to groups in the order in which they are first named', () => {
  expect(groupsOf(readGroups('Bo Castellan, Mole\nAino Abara, Quay\nNobody, Mole', students))).toEqual([
    { name: 'Mole', members: [2] },
    { name: 'Quay', members: [1] },
  ])
})
