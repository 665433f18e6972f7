import { leaving } from './session'
import { HubConnectionState } from '@microsoft/signalr'
import { useQueryClient } from '@tanstack/vue-query'
import { type Ref, onScopeDispose, ref, watch } from 'vue'
import { hasMissed } from './counters'
import { keys } from './keys'
import { liveConnection, pauseBefore } from './liveConnection'

/**
 * Watches an edition or a term: when somebody changes it, whatever is shown of it is read anew through the ordinary
 * reads. The server sends counters, never content.
 * @param mayRead Whether it is there for whoever looks; before that nothing is asked.
 */
export function useLive(of: 'edition' | 'term', id: Ref<number>, mayRead: Ref<boolean>) {
  const client = useQueryClient()
  const away = ref(false)
  let watched: number | null = null
  let stopped = false
  const connection = liveConnection()

  const all = () => ({ queryKey: of === 'edition' ? keys.edition(id.value) : keys.term(id.value) })
  const readAnew = () => void client.invalidateQueries(all())

  /** Once everything is read: reads it anew where something came in between reading and watching. */
  function catchUp(counters: string): void {
    const check = () => {
      if (client.isFetching(all()) > 0) return
      forget()
      if (!stopped && hasMissed(of, watched!, counters)) readAnew()
    }
    const forget = client.getQueryCache().subscribe(() => queueMicrotask(check))
    queueMicrotask(check)
  }

  /** The counters that stand there now; null: there is no connection. */
  async function watchIt(): Promise<string | null> {
    if (connection.state !== HubConnectionState.Connected) return null
    const what = of === 'edition' ? 'Edition' : 'Term'
    if (watched !== null && watched !== id.value) await connection.invoke(`Leave${what}`, watched)
    const counters = await connection.invoke<string>(`Watch${what}`, id.value)
    watched = id.value
    return counters
  }

  async function connect(attempt: number): Promise<void> {
    if (stopped || !mayRead.value) return
    try {
      if (connection.state === HubConnectionState.Disconnected) await connection.start()
      const counters = await watchIt()
      away.value = false
      // After a while without a connection more may be old than counters tell.
      if (attempt > 0) readAnew()
      else if (counters) catchUp(counters)
    } catch {
      if (stopped) return
      away.value = true
      setTimeout(() => void connect(attempt + 1), pauseBefore(attempt))
    }
  }

  connection.on('raised', (raised: { scope: string }) => {
    if (raised.scope === '*' || raised.scope === `${of}:${id.value}`) readAnew()
  })
  connection.onreconnecting(() => {
    away.value = true
  })
  connection.onreconnected(async () => {
    await watchIt()
    away.value = false
    readAnew()
  })
  connection.onclose(() => {
    if (!stopped) void connect(1)
  })
  watch(
    id,
    () =>
      void watchIt().then(
        (counters) => counters && catchUp(counters),
        () => undefined,
      ),
  )
  const end = (): void => {
    stopped = true
    void connection.stop()
  }
  watch(leaving, (now) => now && end(), { flush: 'sync' })
  onScopeDispose(end)
  watch(
    mayRead,
    (may) => {
      if (may && connection.state === HubConnectionState.Disconnected) void connect(0)
    },
    { immediate: true },
  )
  return { away }
}
