import type { LiveEvent } from '@moray/contract/replies'
import type { Hono } from 'hono'
import { routes } from '@moray/contract/routes'
import { streamSSE } from 'hono/streaming'

/** Tells every open browser what has just been committed. */
export class Live {
  private listeners = new Set<(event: LiveEvent) => void>()
  private closers = new Set<() => void>()

  publish(event: LiveEvent) {
    for (const listen of this.listeners) listen(event)
  }

  /** @returns a function that ends the subscription */
  subscribe(listener: (event: LiveEvent) => void, close: () => void): () => void {
    this.listeners.add(listener)
    this.closers.add(close)
    return () => {
      this.listeners.delete(listener)
      this.closers.delete(close)
    }
  }

  get open(): number {
    return this.listeners.size
  }

  /** Ends every stream, so that a stopping server does not wait for its browsers. */
  stop() {
    for (const close of [...this.closers]) close()
  }
}

const HEARTBEAT_MS = 20_000

export function mountLive(app: Hono, live: Live) {
  app.get(routes.live, (c) =>
    streamSSE(c, async (stream) => {
      let end = () => {}
      const ended = new Promise<void>((resolve) => (end = resolve))
      const release = live.subscribe((event) => {
        stream.writeSSE({ id: String(event.id), event: 'change', data: JSON.stringify(event) }).catch(end)
      }, end)
      stream.onAbort(end)
      await stream.writeSSE({ event: 'hello', data: '{}' })
      const beat = setInterval(() => stream.writeSSE({ event: 'beat', data: '{}' }).catch(end), HEARTBEAT_MS)
      await ended
      clearInterval(beat)
      release()
    }),
  )
}
