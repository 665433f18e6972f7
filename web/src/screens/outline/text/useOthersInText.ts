import { HubConnectionState } from '@microsoft/signalr'
import { onScopeDispose, ref, watch } from 'vue'
import { liveConnection } from '../../../foundation/liveConnection'
import { leaving } from '../../../foundation/session'

const SAY_EVERY = 5000

/**
 * Who else has a text open to write in it.
 * @param changed Called when somebody may have saved it.
 */
export function useOthersInText(edition: number, item: number, changed: () => void) {
  const others = ref<string[]>([])
  const connection = liveConnection()
  async function say(): Promise<void> {
    if (connection.state !== HubConnectionState.Connected) return
    others.value = (await connection.invoke<string[] | null>('BeInText', edition, item).catch(() => null)) ?? []
  }
  async function connect(): Promise<void> {
    await connection.start().then(say, () => undefined)
    changed()
  }
  connection.on('raised', (raised: { scope: string }) => {
    if (raised.scope !== '*' && raised.scope !== `text:${item}`) return
    changed()
    void say()
  })
  connection.onreconnected(async () => {
    await say()
    changed()
  })
  const timer = setInterval(
    () => void (connection.state === HubConnectionState.Disconnected ? connect() : say()),
    SAY_EVERY,
  )
  async function end(): Promise<void> {
    clearInterval(timer)
    if (connection.state === HubConnectionState.Connected)
      await connection.invoke('LeaveText', edition, item).catch(() => undefined)
    await connection.stop()
  }
  watch(leaving, (now) => now && void end(), { flush: 'sync' })
  onScopeDispose(() => void end())
  void connect()
  return { others }
}
