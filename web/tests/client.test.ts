import { endpoints } from '@moray/contract/endpoints'
import type { JobReply, LiveEvent } from '@moray/contract/replies'
import { VueQueryPlugin, type QueryClient } from '@tanstack/vue-query'
import { flushPromises, mount } from '@vue/test-utils'
import { createPinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { defineComponent, h } from 'vue'
import { problemAt, read, WireError } from '../src/wire/client.ts'
import { catchUp, createQueries, hear, keepJob, keys, sendForJob } from '../src/wire/queries.ts'
import { useShop } from '../src/stores/shop.ts'
import { useWrite, type Write } from '../src/writing/use-write.ts'

const sent: { headers: Record<string, string>; body: string }[] = []
let answer: () => Promise<Response>

beforeEach(() => {
  sent.length = 0
  vi.stubGlobal('fetch', (_path: string, init: RequestInit) => {
    if (init.method !== 'POST') return Promise.resolve(new Response('[]', { status: 200 }))
    sent.push({ headers: init.headers as Record<string, string>, body: String(init.body) })
    return answer()
  })
})
afterEach(() => vi.unstubAllGlobals())

const reply = (status: number, body: unknown) => () =>
  Promise.resolve(new Response(JSON.stringify(body), { status }))
const ids = () => sent.map((r) => r.headers['x-moray-request'])

/** A write as a component has it, at a screen where somebody has said who he is. */
const aWrite = (): Write => aScreen().write
function aScreen() {
  localStorage.setItem('moray.person', 'ylva')
  const client = createQueries()
  client.setQueryData(keys.people, [
    { id: 'ylva', name: 'Ylva', role: 'technician' },
    { id: 'runa', name: 'Runa', role: 'lead' },
  ])
  let write!: Write
  let shop!: ReturnType<typeof useShop>
  mount(
    defineComponent(() => {
      write = useWrite()
      shop = useShop()
      return () => h('i')
    }),
    { global: { plugins: [createPinia(), [VueQueryPlugin, { queryClient: client }]] } },
  )
  return { write, shop }
}
const line = { id: 's001' }
const add = (write: Write, pieces: number) => write.send(endpoints.addPieces, line, { pieces })

describe('a write', () => {
  it('keeps its id while it is unsure whether the server got it, and takes a fresh one after that', async () => {
    const write = aWrite()
    answer = () => Promise.reject(new TypeError('no network'))
    expect(await add(write, 1)).toBeUndefined()
    expect(write.error.value).toMatchObject({ code: 'offline', unsure: true })
    answer = reply(500, { error: { code: 'internal', message: 'oh', fields: [] } })
    await add(write, 1)
    answer = reply(201, { ok: true })
    expect(await add(write, 1)).toEqual({ ok: true })
    expect(new Set(ids()).size).toBe(1)
    await add(write, 1)
    expect(new Set(ids()).size).toBe(2)
  })
  it('takes a fresh id when something else is sent, or the server has refused', async () => {
    const write = aWrite()
    answer = () => Promise.reject(new TypeError('no network'))
    await add(write, 1)
    await add(write, 2)
    answer = reply(422, {
      error: { code: 'invalid-input', message: 'no', fields: [{ path: 'pieces[1].text', message: 'what' }] },
    })
    await add(write, 2)
    await add(write, 2)
    expect(new Set(ids()).size).toBe(3)
    expect(problemAt(write.error.value, 'pieces')).toBe('what')
    expect(problemAt(write.error.value, 'piece')).toBeUndefined()
  })
  it('meets its class before it is sent: what is wrong is said without a round trip', async () => {
    const write = aWrite()
    expect(await add(write, 0)).toBeUndefined()
    expect(sent).toEqual([])
    expect(problemAt(write.error.value, 'pieces')).toContain('a whole number from 1 to 999')
  })
  it('waits its turn behind another, and is the same while the very same is under way', async () => {
    const write = aWrite()
    let finish!: (r: Response) => void
    answer = () => new Promise((r) => (finish = r))
    const first = add(write, 1)
    const same = add(write, 1)
    const second = add(write, 2)
    await flushPromises()
    expect(sent.map((r) => r.body)).toEqual(['{"pieces":1}'])
    finish(new Response('{"n":1}', { status: 201 }))
    expect([await first, await same]).toEqual([{ n: 1 }, { n: 1 }])
    await flushPromises()
    finish(new Response('{"n":2}', { status: 201 }))
    expect(await second).toEqual({ n: 2 })
    expect(sent.map((r) => r.body)).toEqual(['{"pieces":1}', '{"pieces":2}'])
    expect(write.busy.value).toBe(false)
  })
})

describe('what was meant', () => {
  it('goes out under the name of that moment, also when somebody else has taken over the screen since', async () => {
    const { write, shop } = aScreen()
    let finish!: (r: Response) => void
    answer = () => new Promise((r) => (finish = r))
    void add(write, 1)
    const mine = add(write, 2)
    await flushPromises()
    shop.chosen = 'runa'
    finish(new Response('{}', { status: 201 }))
    await flushPromises()
    finish(new Response('{}', { status: 201 }))
    await mine
    expect(sent.map((r) => r.headers['x-moray-person'])).toEqual(['ylva', 'ylva'])
  })
  it('is kept each time: an equal reading after another one is not the one whose answer got lost', async () => {
    const write = aWrite()
    answer = () => Promise.reject(new TypeError('no network'))
    await add(write, 62)
    answer = reply(201, {})
    await add(write, 63)
    await add(write, 62)
    expect(new Set(ids()).size).toBe(3)
  })
  it('is the same still after the page was loaded anew, while nobody knows what became of it', async () => {
    answer = () => Promise.reject(new TypeError('no network'))
    await add(aWrite(), 7)
    answer = reply(201, {})
    await add(aWrite(), 7)
    await add(aWrite(), 7)
    expect(ids()[1]).toBe(ids()[0])
    expect(ids()[2]).not.toBe(ids()[0])
  })
  it('is waited for twenty seconds, on a line that stalls without breaking', async () => {
    const write = aWrite()
    const timeout = vi.spyOn(AbortSignal, 'timeout').mockImplementation((ms) => {
      expect(ms).toBe(20_000)
      return AbortSignal.abort(new DOMException('late', 'TimeoutError'))
    })
    vi.stubGlobal('fetch', (_: string, init: RequestInit) => {
      init.signal!.throwIfAborted()
      return new Promise(() => {})
    })
    expect(await add(write, 1)).toBeUndefined()
    expect(write.error.value).toMatchObject({ code: 'offline', unsure: true })
    expect(write.error.value!.message).toContain('has not answered for 20 s')
    expect(write.busy.value).toBe(false)
    timeout.mockRestore()
  })
})

describe('something read', () => {
  it('is an error with words when the server answers no JSON', async () => {
    vi.stubGlobal('fetch', () => Promise.resolve(new Response('<html>', { status: 502 })))
    await expect(read(endpoints.shop, {})).rejects.toThrow(WireError)
    await expect(read(endpoints.shop, {})).rejects.toMatchObject({ code: 'not-json', unsure: true })
  })
})

describe('an event', () => {
  const job = (id: string, seen: number) => ({ id, seen }) as JobReply
  const event = (more: Partial<LiveEvent>): LiveEvent => ({ id: 7, kind: 'step', jobId: 'a', ...more })
  const stale = (client: QueryClient, key: readonly unknown[]) => client.getQueryState(key)!.isInvalidated
  function knowing(): QueryClient {
    const client = createQueries()
    client.setQueryData(keys.job('a'), job('a', 7))
    client.setQueryData(keys.job('b'), job('b', 4))
    for (const key of [keys.drawer, keys.shop, keys.people, keys.sheet('x', 1), keys.jobPage('open', '')])
      client.setQueryData(key, [])
    return client
  }
  it('that the job knows already loads nothing: one’s own write has been answered', () => {
    const client = knowing()
    hear(client, event({}))
    expect(stale(client, keys.job('a'))).toBe(false)
    expect(stale(client, keys.jobPage('open', ''))).toBe(false)
  })
  it('that comes before the answer of one’s own write waits for it, and loads nothing either', async () => {
    const client = knowing()
    await sendForJob(client, 'a', () => {
      hear(client, event({ id: 8 }))
      expect(stale(client, keys.job('a'))).toBe(false)
      // another job is not written to
      hear(client, event({ id: 9, jobId: 'b' }))
      expect(stale(client, keys.job('b'))).toBe(true)
      return Promise.resolve(job('a', 8))
    })
    expect(client.getQueryData<JobReply>(keys.job('a'))!.seen).toBe(8)
    expect(stale(client, keys.job('a'))).toBe(false)
  })
  it('of another person during one’s own write is heard once that is answered, or has failed', async () => {
    for (const send of [() => Promise.resolve(job('a', 8)), () => Promise.resolve(undefined)]) {
      const client = knowing()
      await sendForJob(client, 'a', () => {
        hear(client, event({ id: 9 }))
        return send()
      })
      expect(stale(client, keys.job('a'))).toBe(true)
    }
    const client = knowing()
    const failing = sendForJob(client, 'a', () => {
      hear(client, event({ id: 8 }))
      return Promise.reject(new Error('gone'))
    })
    await expect(failing).rejects.toThrow('gone')
    expect(stale(client, keys.job('a'))).toBe(true)
  })
  it('waits for the last of several writes of one job', async () => {
    const client = knowing()
    let answerFirst!: (reply: JobReply) => void
    let answerLast!: (reply: JobReply) => void
    const first = sendForJob(client, 'a', () => new Promise<JobReply>((done) => (answerFirst = done)))
    const last = sendForJob(client, 'a', () => new Promise<JobReply>((done) => (answerLast = done)))
    hear(client, event({ id: 8 }))
    hear(client, event({ id: 9 }))
    answerFirst(job('a', 8))
    await first
    expect(stale(client, keys.job('a'))).toBe(false)
    answerLast(job('a', 9))
    await last
    expect(stale(client, keys.job('a'))).toBe(false)
    hear(client, event({ id: 10 }))
    expect(stale(client, keys.job('a'))).toBe(true)
  })
  it('of another makes the job and the bench stale, and nothing else', () => {
    const client = knowing()
    hear(client, event({ id: 8 }))
    expect(stale(client, keys.job('a'))).toBe(true)
    expect(stale(client, keys.jobPage('open', ''))).toBe(true)
    expect(stale(client, keys.job('b'))).toBe(false)
    expect(stale(client, keys.drawer)).toBe(false)
  })
  it.each([
    ['drawer', keys.drawer],
    ['trial', keys.drawer],
    ['shop', keys.shop],
    ['shop', keys.people],
    ['outcome', keys.shop],
  ])('of kind %s makes %j stale', (kind, key) => {
    const client = knowing()
    hear(client, event({ id: 8, kind, jobId: null }))
    expect(stale(client, key)).toBe(true)
  })
  it('that was missed makes all stale that may be older, and never a version of a sheet', () => {
    const client = knowing()
    catchUp(client, 7)
    expect(stale(client, keys.job('a'))).toBe(false)
    expect(stale(client, keys.job('b'))).toBe(true)
    expect(stale(client, keys.drawer)).toBe(true)
    expect(stale(client, keys.sheet('x', 1))).toBe(false)
  })
  it('is not overtaken by an older answer', () => {
    const client = knowing()
    keepJob(client, job('a', 3))
    expect(client.getQueryData<JobReply>(keys.job('a'))!.seen).toBe(7)
  })
})
