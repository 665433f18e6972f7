import { type ComputedRef, type InjectionKey, computed, inject, provide } from 'vue'
import type { Schemas } from './api/client'

/** What a course calls its levels, as words of sentences. */
export type Levels = Record<'unit' | 'lesson' | 'item', Level>

interface Level {
  one: string
  many: string
  /** With its article. */
  a: string
  counted: (count: number) => string
}

const levelOf = ({ one, many, a }: Schemas['LevelName']): Level => ({
  one,
  many,
  a: a ?? one,
  counted: (count) => `${count} ${count === 1 ? one : many}`,
})

export const levelsOf = (names: Schemas['LevelNames']): Levels => ({
  unit: levelOf(names.unit),
  lesson: levelOf(names.lesson),
  item: levelOf(names.item),
})

/** Where a team has said nothing, and where no course is in view. */
export const plainLevels: Levels = levelsOf({
  unit: { one: 'unit', many: 'units', a: 'a unit' },
  lesson: { one: 'lesson', many: 'lessons', a: 'a lesson' },
  item: { one: 'item', many: 'items', a: 'an item' },
})

const key: InjectionKey<ComputedRef<Levels>> = Symbol('levels')

/** Says for every part below what the course in view calls its levels. */
export const provideLevels = (names: () => Schemas['LevelNames'] | undefined): void =>
  provide(
    key,
    computed(() => (names() ? levelsOf(names()!) : plainLevels)),
  )

export const useLevels = (): ComputedRef<Levels> => inject(key, () => computed(() => plainLevels), true)

export const capital = (words: string): string => words.charAt(0).toUpperCase() + words.slice(1)

/** The names as they are sent: a word for one and a word for several. */
export const levelNames = (of: Levels): Schemas['LevelNames'] => ({
  unit: { one: of.unit.one, many: of.unit.many },
  lesson: { one: of.lesson.one, many: of.lesson.many },
  item: { one: of.item.one, many: of.item.many },
})
