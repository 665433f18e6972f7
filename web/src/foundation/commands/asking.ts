import { readonly, shallowRef } from 'vue'
import type { Schemas } from '../api/client'

/** What something would do: its sentence, how far it reaches, and what the button says. */
export type Answer = Pick<Schemas['CommandAnswer'], 'act'> & {
  reach: Pick<Schemas['ReachAnswer'], 'sentence' | 'effect'>
}
type Named = { reach: Pick<Schemas['ReachAnswer'], 'students' | 'others'> }

/** Something that waits to be said yes to: what it would do, and to whom. */
export interface Asked {
  answer: Answer
  /** Who is reached, by name; null: nobody can be named. */
  named: (() => Promise<Named>) | null
  settle: (go: boolean) => void
}

/** What somebody decided to leave as it is. It is no problem, and nothing is told of it. */
export class LeftAsItIs extends Error {}

const asked = shallowRef<Asked | null>(null)

/** Shows what a command would do and waits: true, it is to be done; false, it is left. One at a time. */
export function askBefore(answer: Answer, named: (() => Promise<Named>) | null = null): Promise<boolean> {
  asked.value?.settle(false)
  return new Promise((resolve) => {
    const settle = (go: boolean): void => {
      asked.value = null
      resolve(go)
    }
    asked.value = { answer, named, settle }
  })
}

/** What is asked just now, for the part that shows it; null: nothing. */
export const useAsked = () => readonly(asked)

/** Leaves whatever is asked as it is. */
export const leaveAsked = (): void => asked.value?.settle(false)
