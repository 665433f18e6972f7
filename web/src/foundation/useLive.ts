import { HttpTransportType, HubConnectionBuilder, HubConnectionState, LogLevel } from '@microsoft/signalr'
import { useQueryClient } from '@tanstack/vue-query'
import { type Ref, onScopeDispose, ref, watch } from 'vue'
import { keys } from './keys'

const PAUSES = [0, 500, 1000, 2000, 5000]

/**
 * Watches an edition: when somebody changes it, whatever is shown of it is read anew through the ordinary reads. The
 * server sends counters, never content.
 * @param mayRead Whether the edition is there for whoever looks; before that nothing is asked.
 */
export function useLive(edition: Ref<number>, mayRead: Ref<boolean>) {
  const client = useQueryClient()
  const away = ref(false)
  let watched: number | null = null
  let stopped = false
  const connection = new HubConnectionBuilder()
    .withUrl('/live', { transport: HttpTransportType.WebSockets, skipNegotiation: true })
    .withAutomaticReconnect({ nextRetryDelayInMilliseconds: (lost) => PAUSES[lost.previousRetryCount] ?? 5000 })
    .configureLogging(LogLevel.None)
    .build()

  const readAnew = () => void client.invalidateQueries({ queryKey: keys.edition(edition.value) })

  async function watchEdition(): Promise<void> {
    if (connection.state !== HubConnectionState.Connected) return
    if (watched !== null && watched !== edition.value) await connection.invoke('LeaveEdition', watched)
    await connection.invoke('WatchEdition', edition.value)
    watched = edition.value
  }

  async function connect(attempt: number): Promise<void> {
    if (stopped || !mayRead.value) return
    try {
      if (connection.state === HubConnectionState.Disconnected) await connection.start()
      await watchEdition()
      away.value = false
      readAnew()
    } catch {
      if (stopped) return
      away.value = true
      setTimeout(() => void connect(attempt + 1), PAUSES[attempt] ?? 5000)
    }
  }

  connection.on('raised', (raised: { scope: string }) => {
    if (raised.scope === '*' || raised.scope === `edition:${edition.value}`) readAnew()
  })
  connection.onreconnecting(() => {
    away.value = true
  })
  connection.onreconnected(async () => {
    await watchEdition()
    away.value = false
    readAnew()
  })
  connection.onclose(() => {
    if (!stopped) void connect(1)
  })
  watch(edition, () => void watchEdition().catch(() => undefined))
  onScopeDispose(() => {
    stopped = true
    void connection.stop()
  })
  watch(
    mayRead,
    (may) => {
      if (may && connection.state === HubConnectionState.Disconnected) void connect(0)
    },
    { immediate: true },
  )
  return { away }
}
