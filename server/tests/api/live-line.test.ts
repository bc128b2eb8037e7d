import type { JobReply } from '@moray/contract/replies'
import { describe, expect, it } from 'vitest'
import { testApp, type TestApp } from '../test-app.ts'

const RUNA = { 'x-moray-person': 'runa' }

/** An open event stream, read word by word. */
async function line(app: TestApp, query = '') {
  const reader = (await app.request(`/api/live${query}`)).body!.getReader()
  const decoder = new TextDecoder()
  let text = ''
  return {
    /** Comes back with the next word of that name, and what it says. */
    async next(event: string): Promise<Record<string, unknown>> {
      for (;;) {
        const found = new RegExp(`event: ${event}\\ndata: (.*)\\n(?:id: .*\\n)?\\n`).exec(text)
        if (found) {
          text = text.slice(found.index + found[0].length)
          return JSON.parse(found[1]!) as Record<string, unknown>
        }
        const { value, done } = await reader.read()
        if (done) throw new Error(`the line ended without ${event}`)
        text += decoder.decode(value)
      }
    },
    end: () => reader.cancel(),
  }
}

describe('the live line', () => {
  it('tells an open tablet that the demo was left, by another epoch, and goes on from the new history', async () => {
    const app = await testApp({ live: true })
    const tablet = await line(app)
    const before = await tablet.next('hello')
    expect(before.epoch).toMatch(/^demo-/)
    expect((await app.post('/api/shop/leave-demo', { confirm: 'leave the demo' }, RUNA)).status).toBe(201)
    const after = await tablet.next('hello')
    expect(after).toMatchObject({ last: 0, boot: before.boot })
    expect(after.epoch).not.toBe(before.epoch)
    expect(after.epoch).not.toMatch(/^demo-/)
    // what happens there is told, although its number is far below those of the demo
    expect(
      (await app.post('/api/people', { name: 'Åse', role: 'lead' }, { 'x-moray-person': '' })).status,
    ).toBe(201)
    expect(await tablet.next('change')).toMatchObject({ id: 1, kind: 'shop' })
    await tablet.end()
  })
  it('tells a browser that knows more than there is to load all anew, as after an older copy was brought back', async () => {
    const app = await testApp({ live: true })
    const { seen } = await app.get<JobReply>('/api/jobs/rordrum')
    const tablet = await line(app, `?after=${seen + 60}`)
    expect(await tablet.next('again')).toEqual({ last: seen })
    expect(await tablet.next('hello')).toMatchObject({ last: seen })
    await app.post('/api/drawer/s001/add', { pieces: 1 })
    expect(await tablet.next('change')).toMatchObject({ id: seen + 1, kind: 'drawer' })
    await tablet.end()
  })
  it('names the run of the server: another one may have missed what no number tells', async () => {
    const [a, b] = [await testApp({ live: true }), await testApp({ live: true })]
    const boots = []
    for (const app of [a, a, b]) {
      const tablet = await line(app)
      boots.push((await tablet.next('hello')).boot)
      await tablet.end()
    }
    expect(boots[1]).toBe(boots[0])
    expect(boots[2]).not.toBe(boots[0])
  })
})
