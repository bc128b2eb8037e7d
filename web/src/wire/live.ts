import { endpoints } from '@moray/contract/endpoints'
import type { LiveEvent } from '@moray/contract/replies'
import { useBroadcastChannel, useEventListener, useEventSource, useIntervalFn } from '@vueuse/core'
import { effectScope, onScopeDispose, ref, watch, type EffectScope } from 'vue'

/** What the stream says, passed on from the tab that holds it to all others. */
export type Word =
  | { event: 'change'; data: LiveEvent }
  | { event: 'again' | 'beat'; last: number }
  /** With the epoch of the shop's history, and the run of the server that holds it. */
  | { event: 'hello'; last: number; epoch?: string; boot?: string }
  | { event: 'lost' }
  /** A tab that has just been opened: does the line stand? */
  | { event: 'asked' }

/** The server beats every 15 seconds; a line that has been silent for so long stands no more. */
export const SILENT_MS = 40_000
const LOCK = 'moray.live'

export interface Line {
  stop: () => void
}

/**
 * Hears what any browser has committed. All tabs of a browser share one stream: the one that holds the lock has it and tells the others; when it
 * closes, the next one takes over. Where the browser has no locks (a page that is not local and not encrypted) every tab has its own.
 * @param told an event, in order; where events are missing before it, `again` is called first
 * @param again something may have been missed; `last` is the newest event
 * @param stands whether the line stands, whenever that changes
 * @param elsewhere the shop's history is another one: the demo was left, or a copy was brought back
 */
export function followLive(
  told: (event: LiveEvent) => void,
  again: (last: number) => void,
  stands: (connected: boolean) => void,
  now: () => number = Date.now,
  elsewhere: (epoch: string) => void = () => {},
): Line {
  const scope = effectScope(true)
  const connected = ref(false)
  scope.run(() => watch(connected, stands, { flush: 'sync' }))
  scope.run(() => {
    const { post, data } = useBroadcastChannel<Word, Word>({ name: LOCK })
    let heardAt = 0
    let last = -1
    let holds = false
    let epoch: string | undefined
    let boot: string | undefined

    /** Whether a hello comes out of another history, or of another run of the server: numbers of events tell nothing then of what was missed. */
    function isAnother(word: Extract<Word, { event: 'hello' }>): boolean {
      const other = (known: string | undefined, said: string | undefined) =>
        known !== undefined && said !== undefined && known !== said
      const another = other(epoch, word.epoch) || other(boot, word.boot)
      epoch = word.epoch ?? epoch
      boot = word.boot ?? boot
      if (word.epoch !== undefined) elsewhere(word.epoch)
      return another
    }

    function hear(word: Word) {
      if (word.event === 'asked') {
        if (holds && connected.value) post({ event: 'beat', last })
        return
      }
      if (word.event === 'lost') {
        connected.value = false
        return
      }
      heardAt = now()
      if (word.event === 'change') {
        // the server numbers events without gaps: one that is missing was missed
        if (last >= 0 && word.data.id > last + 1) again(word.data.id)
        if (word.data.id > last) {
          last = word.data.id
          told(word.data)
        }
      } else if (word.event === 'hello' && isAnother(word)) {
        last = word.last
        again(Infinity)
      } else {
        // a first hello may come after pages were loaded; a later one after a line that was down; a beat may tell of what got lost; an older
        // number than the one that is known comes from an older history
        if (word.last > last || (word.event !== 'beat' && !connected.value)) again(word.last)
        last = word.event === 'beat' ? Math.max(last, word.last) : word.last
      }
      connected.value = true
    }
    // each word counts: two within one turn may not become one
    watch(data, (word) => word && hear(word), { flush: 'sync' })
    useIntervalFn(() => {
      if (connected.value && now() - heardAt > SILENT_MS) connected.value = false
    }, 5000)

    whenAlone(scope, () => {
      holds = true
      holdStream(
        () => last,
        (word) => {
          hear(word)
          post(word)
        },
        now,
      )
    })
    // whoever holds the stream may next say something in a quarter of a minute
    if (!holds) post({ event: 'asked' })
  })
  return { stop: () => scope.stop() }
}

/** Runs `work` in the scope while no other tab of this browser does. */
function whenAlone(scope: EffectScope, work: () => void) {
  const locks = (navigator as Partial<Navigator>).locks
  if (!locks) return work()
  void locks.request(
    LOCK,
    () =>
      new Promise<void>((release) => {
        if (!scope.active) return release()
        scope.run(() => {
          onScopeDispose(release)
          work()
        })
      }),
  )
}

/** Holds the event stream; opens it afresh, after the last event that is known, whenever it closes or falls silent. */
function holdStream(last: () => number, say: (word: Word) => void, now: () => number) {
  const address = ref(urlAfter(last()))
  const stream = useEventSource(address, [], { autoReconnect: { retries: -1, delay: 2000 } })
  let heardAt = now()
  // listened to on the source itself: two beats that are the same are two
  useEventListener(stream.eventSource, ['hello', 'again', 'beat', 'change'], (e) => {
    const { type, data } = e as MessageEvent<string>
    heardAt = now()
    if (type === 'change') say({ event: type, data: JSON.parse(data) as LiveEvent })
    else say({ ...(JSON.parse(data) as { last: number }), event: type as 'hello' | 'again' | 'beat' })
  })
  watch(stream.error, (e) => e && say({ event: 'lost' }))
  useIntervalFn(() => {
    if (now() - heardAt < SILENT_MS) return
    heardAt = now()
    say({ event: 'lost' })
    const next = urlAfter(last())
    // another address opens it afresh by itself
    if (next === address.value) stream.open()
    else address.value = next
  }, 5000)
}

const urlAfter = (last: number) => endpoints.live.path + (last >= 0 ? `?after=${last}` : '')
