// @vitest-environment jsdom
import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import { type App, type SetupContext, createApp, h, nextTick, ref } from 'vue'
import type { Schemas } from '../../../foundation/api/client'
import RubricField from './RubricField.vue'

// The field for points is tried in the browser; here what becomes of a number counts.
vi.mock('../../../parts/fields/NumberField.vue', () => ({
  default: (_: unknown, { emit }: SetupContext) =>
    h('input', {
      inputmode: 'decimal',
      onInput: (event: Event) => emit('update:modelValue', Number((event.target as HTMLInputElement).value)),
    }),
}))

const level = (id: string, from: number, to = from, name = '') => ({
  id,
  name,
  from,
  to,
  isRange: to > from,
  words: '',
})
const rubric: Schemas['RubricForm'] = {
  name: 'Log',
  criteria: [
    { id: 'c1', title: 'Seen', weight: 1, isOptional: false, levels: [level('l1', 0), level('l2', 3)] },
    {
      id: 'c2',
      title: 'Named',
      weight: 2,
      isOptional: false,
      levels: [level('l1', 0, 0, 'no'), level('l2', 1, 3, 'some'), level('l3', 4, 4, 'all')],
    },
  ],
}

let app: App
let root: HTMLElement
const mark = ref<Schemas['MarkGiven'] | null>(null)
const given = () => mark.value?.rubric?.map((one) => `${one.criterion} ${one.level} ${one.points ?? '–'}`) ?? null

function mount(): void {
  root = document.createElement('div')
  document.body.append(root)
  app = createApp(() =>
    h(RubricField, {
      rubric,
      marked: { as: 'points', outOf: 11, levels: [] },
      modelValue: mark.value,
      'onUpdate:modelValue': (now: Schemas['MarkGiven'] | null | undefined) => (mark.value = now ?? null),
    }),
  )
  app.mount(root)
}
async function press(...keys: string[]): Promise<void> {
  for (const key of keys) {
    document.activeElement!.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }))
    await nextTick()
    await nextTick()
  }
}
const current = () => root.querySelector('.current .title')!.textContent!.trim()

beforeEach(() => {
  mark.value = null
  mount()
})
afterEach(() => {
  app.unmount()
  root.remove()
})

test('a digit chooses the level, and the next criterion comes up by itself', async () => {
  expect(current()).toBe('Seen')
  // No level has this number.
  await press('7')
  expect(given()).toBeNull()
  await press('3')
  expect(given()).toEqual(['c1 l2 –'])
  expect(current()).toMatch(/^Named/)
  // Where levels have names their place is the key.
  await press('3')
  expect(given()).toEqual(['c1 l2 –', 'c2 l3 –'])
  expect(root.querySelector('.sum')!.textContent).toBe('11 of 11')
})

test('a range counts once its points are written', async () => {
  await press('3', '2')
  expect(given()).toEqual(['c1 l2 –'])
  expect(root.textContent).toContain('one to go')
  const field = root.querySelector('input')!
  expect(document.activeElement).toBe(field)
  field.value = '1.5'
  field.dispatchEvent(new Event('input'))
  await nextTick()
  expect(given()).toEqual(['c1 l2 –', 'c2 l2 1.5'])
  expect(root.querySelector('.sum')!.textContent).toBe('6 of 11')
})

test('the same again takes it back, and what was given before stands there to begin with', async () => {
  await press('3', 'ArrowLeft', '3')
  expect(given()).toBeNull()
  app.unmount()
  root.remove()
  mark.value = { value: null, level: null, rubric: [{ criterion: 'c2', level: 'l3', points: null }] }
  mount()
  expect(root.querySelector('[aria-pressed=true]')!.textContent).toContain('all (4)')
  expect(root.querySelector('.sum')!.textContent).toBe('8 of 11')
})

test('what was left for a rubric that was changed since is to be marked again', async () => {
  mark.value = {
    value: null,
    level: null,
    rubric: [
      { criterion: 'c1', level: 'l2', points: null },
      { criterion: 'c9', level: 'l1', points: null },
      { criterion: 'c2', level: 'l9', points: null },
    ],
  }
  mount()
  await nextTick()
  expect(given()).toEqual(['c1 l2 –'])
})
