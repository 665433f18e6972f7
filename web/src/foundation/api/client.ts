import createClient from 'openapi-fetch'
import { noteCounters } from '../counters'
import type { components, paths } from './schema'

export type Schemas = components['schemas']
export type Conflict = Schemas['Conflict']

/** What the server says when something cannot be done: what happened, what was kept, what to do. */
export interface Problem {
  status: number
  code: string
  title: string
  detail: string
  field?: string
  conflict?: Conflict
}

/** A problem, thrown. */
export class ProblemError extends Error {
  readonly problem: Problem

  constructor(problem: Problem) {
    super(problem.title)
    this.problem = problem
  }
}

const away: Problem = {
  status: 0,
  code: 'away',
  title: 'Polycline does not answer.',
  detail: 'What you wrote is still here. Check the connection and try again.',
}

/** Talks to the server as its OpenAPI document says. Every request names itself as ours; cookies do the rest. */
export const api = createClient<paths>({ baseUrl: location.origin, headers: { 'X-Polycline': '1' } })

/** What every command carries, so that sent twice it is done once; the same key for the same thing sent again. */
export const once = (key: string = crypto.randomUUID()) => ({ 'Idempotency-Key': key })

/** The answer's data, or its problem thrown. */
export async function ask<T>(answer: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  let settled
  try {
    settled = await answer
  } catch {
    throw new ProblemError(away)
  }
  noteCounters(settled.response)
  if (settled.response.ok) return settled.data as T
  const told = (settled.error ?? {}) as Partial<Problem>
  throw new ProblemError({
    status: settled.response.status,
    code: told.code ?? 'fault',
    title: told.title ?? 'Something went wrong.',
    detail: told.detail ?? 'Nothing was changed. Try again in a moment.',
    field: told.field,
    conflict: told.conflict,
  })
}

/** Whatever was thrown, as a problem. */
export function problemOf(error: unknown): Problem {
  return error instanceof ProblemError ? error.problem : { ...away, title: 'Something went wrong on this page.' }
}
