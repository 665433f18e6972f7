import { type Ref, computed } from 'vue'
import type { paths } from '../api/schema'
import { api } from '../api/client'
import { keys } from '../keys'
import { type Send, useCommand } from './useCommand'

type CommandPath<Of extends string> = {
  [P in keyof paths]: P extends `${Of}/${string}`
    ? paths[P] extends {
        post: {
          requestBody: { content: { 'application/json': unknown } }
          parameters: { query?: { preview?: boolean } }
        }
      }
      ? P
      : never
    : never
}[keyof paths]

type Body<P extends keyof paths> = paths[P] extends {
  post: { requestBody: { content: { 'application/json': infer B } } }
}
  ? B
  : never

// One function for every command: they differ in what they ask, not in how they are sent.
type Post<B> = (path: string, init: { params: unknown; signal?: AbortSignal; body: B }) => ReturnType<Send<B>>

/** A command on an edition by its address. */
export function useEditionCommand<P extends CommandPath<'/api/editions/{edition}'>>(edition: Ref<number>, path: P) {
  const post = api.POST as unknown as Post<Body<P>>
  return useCommand<Body<P>>(
    computed(() => keys.edition(edition.value)),
    (body, { params, signal }) => post(path, { params: { ...params, path: { edition: edition.value } }, signal, body }),
  )
}

/** A command on a term by its address. */
export function useTermCommand<P extends CommandPath<'/api/terms/{term}'>>(term: Ref<number>, path: P) {
  const post = api.POST as unknown as Post<Body<P>>
  return useCommand<Body<P>>(
    computed(() => keys.term(term.value)),
    (body, { params, signal }) => post(path, { params: { ...params, path: { term: term.value } }, signal, body }),
  )
}
