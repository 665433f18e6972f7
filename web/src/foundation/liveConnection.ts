import { HttpTransportType, HubConnectionBuilder, LogLevel } from '@microsoft/signalr'

/** How long to wait before trying again, in milliseconds: longer each time. */
export const pauseBefore = (attempt: number): number => [0, 500, 1000, 2000][attempt] ?? 5000

/** A connection on which the server says that something has changed, never what; it comes back by itself when it is lost. */
export const liveConnection = () =>
  new HubConnectionBuilder()
    .withUrl('/live', { transport: HttpTransportType.WebSockets, skipNegotiation: true })
    .withAutomaticReconnect({ nextRetryDelayInMilliseconds: (lost) => pauseBefore(lost.previousRetryCount) })
    .configureLogging(LogLevel.None)
    .build()
