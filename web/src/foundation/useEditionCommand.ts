import type { Ref } from 'vue'
import type { paths } from './api/schema'
import { api } from './api/client'
import { type Send, useCommand } from './useCommand'

type CommandPath = {
  [P in keyof paths]: P extends `/api/editions/{edition}/${string}`
    ? paths[P] extends { post: { requestBody: { content: { 'application/json': unknown } } } }
      ? P
      : never
    : never
}[keyof paths]

type Body<P extends CommandPath> = paths[P]['post'] extends {
  requestBody: { content: { 'application/json': infer B } }
}
  ? B
  : never

// One function for every command: they differ in what they ask, not in how they are sent.
type Post<B> = (path: string, init: { params: unknown; body: B }) => ReturnType<Send<B>>

/** A command on an edition by its address. */
export function useEditionCommand<P extends CommandPath>(edition: Ref<number>, path: P) {
  const post = api.POST as unknown as Post<Body<P>>
  return useCommand<Body<P>>(edition, (body, { params }) =>
    post(path, { params: { ...params, path: { edition: edition.value } }, body }),
  )
}
