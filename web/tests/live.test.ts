import type { LiveEvent } from '@moray/contract/replies'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { followLive, SILENT_MS, type Line } from '../src/wire/live.ts'

/** A stream that the test speaks through. */
class FakeSource extends EventTarget {
  static open: FakeSource[] = []
  static readonly CLOSED = 2
  readyState = 1
  onopen: (() => void) | null = null
  onerror: ((e: Event) => void) | null = null
  constructor(readonly url: string) {
    super()
    FakeSource.open.push(this)
  }
  close() {
    this.readyState = 2
    FakeSource.open = FakeSource.open.filter((s) => s !== this)
  }
  say(event: string, data: object) {
    this.dispatchEvent(new MessageEvent(event, { data: JSON.stringify(data) }))
  }
  /** The browser gives up on it, as it does after some answers. */
  giveUp() {
    this.readyState = 2
    this.onerror?.(new Event('error'))
  }
}
const source = () => FakeSource.open.at(-1)!
const change = (id: number): LiveEvent => ({ id, kind: 'step', jobId: 'a' })

let told: number[]
let again: number[]
let stands: boolean
let epochs: string[]
let line: Line
const follow = () =>
  followLive(
    (e) => told.push(e.id),
    (last) => again.push(last),
    (s) => (stands = s),
    Date.now,
    (epoch) => epochs.push(epoch),
  )

beforeEach(async () => {
  vi.useFakeTimers()
  vi.stubGlobal('EventSource', FakeSource)
  FakeSource.open = []
  told = []
  again = []
  stands = false
  epochs = []
  line = follow()
  await vi.advanceTimersByTimeAsync(0)
})
afterEach(() => {
  line.stop()
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

describe('the live line', () => {
  it('stands with the first hello, which asks for what was read before it, and tells what happens', async () => {
    expect(stands).toBe(false)
    source().say('hello', { last: 5 })
    await vi.advanceTimersByTimeAsync(0)
    expect([stands, again]).toEqual([true, [5]])
    source().say('change', change(6))
    source().say('change', change(7))
    expect(told).toEqual([6, 7])
    expect(again).toEqual([5])
  })
  it('of another history, or of another run of the server, asks for everything and hears what has smaller numbers', () => {
    source().say('hello', { last: 1062, epoch: 'demo-a', boot: 'x' })
    source().say('hello', { last: 3, epoch: 'b', boot: 'x' })
    expect(again).toEqual([1062, Infinity])
    expect(epochs).toEqual(['demo-a', 'b'])
    source().say('change', change(4))
    expect(told).toEqual([4])
    source().say('hello', { last: 4, epoch: 'b', boot: 'y' })
    expect(again).toEqual([1062, Infinity, Infinity])
    source().say('hello', { last: 4, epoch: 'b', boot: 'y' })
    expect(again).toHaveLength(3)
  })
  it('notices an event that never came, by its number', () => {
    source().say('hello', { last: 5 })
    source().say('change', change(8))
    expect(again).toEqual([5, 8])
    expect(told).toEqual([8])
  })
  it('notices it by a beat as well', () => {
    source().say('hello', { last: 5 })
    source().say('beat', { last: 6 })
    expect(again).toEqual([5, 6])
  })
  it('says that it is down when nothing is heard, and opens afresh after what it knows', async () => {
    source().say('hello', { last: 5 })
    const first = source()
    await vi.advanceTimersByTimeAsync(SILENT_MS + 6000)
    expect(stands).toBe(false)
    expect(source()).not.toBe(first)
    expect(source().url).toBe('/api/live?after=5')
    source().say('hello', { last: 9 })
    expect([stands, again]).toEqual([true, [5, 9]])
  })
  it('stays up while the same beat comes again and again', async () => {
    source().say('hello', { last: 5 })
    for (let i = 0; i < 8; i++) {
      await vi.advanceTimersByTimeAsync(15_000)
      source().say('beat', { last: 5 })
    }
    expect(stands).toBe(true)
    expect(again).toEqual([5])
  })
  it('comes back when the browser has given it up for good', async () => {
    source().say('hello', { last: 5 })
    source().giveUp()
    await vi.advanceTimersByTimeAsync(0)
    expect(stands).toBe(false)
    await vi.advanceTimersByTimeAsync(2500)
    source().say('hello', { last: 5 })
    expect([stands, again]).toEqual([true, [5, 5]])
  })
})

/** Locks of a browser: one holder, the others wait. */
function browserLocks() {
  const waiting: (() => Promise<void>)[] = []
  let held = false
  const next = () => {
    const work = waiting.shift()
    held = work !== undefined
    if (work) void work().finally(next)
  }
  return {
    request: (_name: string, work: () => Promise<void>) => {
      waiting.push(work)
      if (!held) next()
      return Promise.resolve()
    },
  }
}

describe('a second tab of the browser', () => {
  const second = () => {
    const heard = { told: [] as number[], again: [] as number[], stands: false }
    const tab = followLive(
      (e) => heard.told.push(e.id),
      (last) => heard.again.push(last),
      (s) => (heard.stands = s),
      Date.now,
    )
    return { heard, tab }
  }
  beforeEach(async () => {
    line.stop()
    vi.stubGlobal('navigator', { locks: browserLocks() })
    FakeSource.open = []
    again = []
    line = follow()
    await vi.advanceTimersByTimeAsync(0)
  })

  it('knows at once that the line stands, hears what the first one hears, and takes it over', async () => {
    source().say('hello', { last: 5 })
    const { heard, tab } = second()
    await vi.waitFor(() => expect(heard).toEqual({ told: [], again: [5], stands: true }))
    expect(FakeSource.open).toHaveLength(1)
    source().say('change', change(6))
    await vi.waitFor(() => expect(heard.told).toEqual([6]))
    line.stop()
    await vi.waitFor(() => expect(source().url).toBe('/api/live?after=6'))
    source().say('change', change(7))
    expect(heard.told).toEqual([6, 7])
    tab.stop()
  })
  it('does not call it live while the first one has no line', async () => {
    const { heard, tab } = second()
    await vi.advanceTimersByTimeAsync(1000)
    expect(heard.stands).toBe(false)
    source().say('hello', { last: 5 })
    await vi.waitFor(() => expect(heard.stands).toBe(true))
    tab.stop()
  })
})
