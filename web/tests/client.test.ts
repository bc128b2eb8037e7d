import { createPinia, setActivePinia } from 'pinia'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { useLoaded } from '../src/stores/use-loaded.ts'
import { problemAt, WireError } from '../src/wire/client.ts'
import { useWrite } from '../src/wire/use-write.ts'

const sent: Record<string, string>[] = []
let answer: () => Promise<Response>

beforeEach(() => {
  setActivePinia(createPinia())
  sent.length = 0
  vi.stubGlobal('fetch', (_path: string, init: RequestInit) => {
    sent.push(init.headers as Record<string, string>)
    return answer()
  })
})
afterEach(() => vi.unstubAllGlobals())

const reply = (status: number, body: unknown) => () =>
  Promise.resolve(new Response(JSON.stringify(body), { status }))
const ids = () => sent.map((h) => h['x-moray-request'])

describe('a write', () => {
  it('keeps its id while it is unsure whether the server got it, and takes a fresh one after that', async () => {
    const write = useWrite<{ ok: boolean }>()
    answer = () => Promise.reject(new TypeError('no network'))
    expect(await write.send('/x', { a: 1 })).toBeUndefined()
    expect(write.error.value).toMatchObject({ code: 'offline', unsure: true })
    answer = reply(500, { error: { code: 'internal', message: 'oh', fields: [] } })
    await write.send('/x', { a: 1 })
    answer = reply(201, { ok: true })
    expect(await write.send('/x', { a: 1 })).toEqual({ ok: true })
    expect(new Set(ids()).size).toBe(1)
    await write.send('/x', { a: 1 })
    expect(new Set(ids()).size).toBe(2)
  })
  it('takes a fresh id when something else is sent, or the server has refused', async () => {
    const write = useWrite()
    answer = () => Promise.reject(new TypeError('no network'))
    await write.send('/x', { a: 1 })
    await write.send('/x', { a: 2 })
    answer = reply(422, {
      error: { code: 'invalid-input', message: 'no', fields: [{ path: 'pieces[1].text', message: 'what' }] },
    })
    await write.send('/x', { a: 2 })
    await write.send('/x', { a: 2 })
    expect(new Set(ids()).size).toBe(3)
    expect(problemAt(write.error.value, 'pieces')).toBe('what')
    expect(problemAt(write.error.value, 'piece')).toBeUndefined()
  })
})

describe('something loaded', () => {
  it('shows the latest asked for, not the latest to arrive', async () => {
    const loaded = useLoaded<string>()
    let slow!: (v: string) => void
    const first = loaded.run(() => new Promise((r) => (slow = r)))
    await loaded.run(() => Promise.resolve('second'))
    slow('first')
    await first
    expect(loaded.value.value).toBe('second')
  })
  it('keeps what it has when a later load fails', async () => {
    const loaded = useLoaded<string>()
    await loaded.run(() => Promise.resolve('here'))
    await loaded.run(() => Promise.reject(new WireError('offline', 'gone')))
    expect(loaded.value.value).toBe('here')
    expect(loaded.error.value?.code).toBe('offline')
  })
})
