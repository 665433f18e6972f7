import type { ItemState } from '../../look/marks/StateMark.vue'

/** What a student has done with an item, in the words of the screens. */
export const progressWords: Record<string, string> = {
  none: '',
  begun: 'begun',
  'handed-in': 'handed in',
  'with-teacher': 'with your teacher',
  'given-back': 'returned',
  'try-again': 'try again',
  done: 'finished',
}

/** The mark of a state. */
export const stateMarks: Record<string, ItemState> = {
  open: 'open',
  upcoming: 'upcoming',
  locked: 'locked',
  overdue: 'overdue',
  closed: 'closed',
  withdrawn: 'kept-back',
  excused: 'not-needed',
}

/** What a state is called where it stands alone. */
export const stateWords: Record<string, string> = {
  open: 'open',
  upcoming: 'opens later',
  locked: 'locked',
  overdue: 'overdue',
  closed: 'closed',
  withdrawn: 'no longer open; yours to read',
  excused: 'excused',
}
