import type { QueryClient } from '@tanstack/vue-query'
import { shallowRef } from 'vue'
import type { Router } from 'vue-router'
import { problemOf } from './api/client'
import { forgetFiles } from './keptFiles'

/** One is signing out: whatever is open to the server is closed, and not opened again. */
export const leaving = shallowRef(false)

/** Under names that begin so, this device keeps what somebody is writing until the server has it. */
export const WRITING = 'polycline-writing-'

/** Leaves nothing of what was written here to whoever uses this device next. */
export function forgetWriting(): void {
  for (const name of Object.keys(localStorage)) if (name.startsWith(WRITING)) localStorage.removeItem(name)
  void forgetFiles()
}

/** Leads whoever is signed out to the sign-in page, and back again after it. */
export function leadToSignIn(router: Router, client: () => QueryClient) {
  return (error: unknown): void => {
    const here = router.currentRoute.value
    if (problemOf(error).code !== 'signed-out' || here.name === 'sign-in') return
    client().clear()
    void router.push({ name: 'sign-in', query: here.fullPath === '/' ? {} : { next: here.fullPath } })
  }
}

/** Where to go after signing in: an address of ours, never another site's. */
export function nextAfter(next: unknown): string {
  return typeof next === 'string' && /^\/(?![/\\])/.test(next) ? next : '/'
}
