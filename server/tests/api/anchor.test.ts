import { describe, expect, it } from 'vitest'
import { keepAnchor } from '../../src/data/keep-anchor.ts'
import { readMark, type Mark } from '../../src/data/mark.ts'
import { scratch, testApp, type TestApp } from '../test-app.ts'

const RUNA = { 'x-moray-person': 'runa' }
const fresh: Mark = { shop: 'a-shop', created: '2026-11-30T08:00:00.000Z', state: 'ready' }

/** Starts on a folder, as a server does, does something, and stops. @returns what the folder says then */
async function run(app: TestApp, folder: string, work: () => Promise<unknown> = () => Promise.resolve()) {
  const logged: string[] = []
  const anchor = await keepAnchor(app.db, app.live, folder, readMark(folder) ?? fresh, (m) => logged.push(m))
  await work()
  await anchor.stop()
  return { ...readMark(folder)!, logged }
}
const newest = async (app: TestApp) =>
  (
    await app.db.query<{ id: number; digest: string }>(
      'select id, digest from event order by id desc limit 1',
    )
  )[0]!
const add = (app: TestApp) => app.post('/api/drawer/s001/add', { pieces: 1 })

describe('what a folder writes down of the history', () => {
  it('is number and seal of the newest event, whenever it stops', async () => {
    const app = await testApp({ live: true })
    const folder = scratch('anchor')
    const mark = await run(app, folder, () => add(app))
    const { id, digest } = await newest(app)
    expect(mark.anchor).toMatchObject({ event: id, seal: digest })
    expect([mark.breaks, mark.logged]).toEqual([undefined, []])
  })
  it('remembers that events were cut off, also when others have come in their place', async () => {
    const app = await testApp({ live: true })
    const folder = scratch('anchor')
    const { anchor } = await run(app, folder, () => add(app))
    await app.db.script(
      'alter table event disable trigger user; delete from event where id > (select max(id) - 3 from event); alter table event enable trigger user',
    )
    const after = await run(app, folder, () => add(app))
    expect(after.breaks).toEqual([expect.stringContaining(`event ${anchor!.event} is missing`)])
    expect(after.logged).toEqual([expect.stringContaining('is not the one that this folder knows')])
    expect((await run(app, folder)).breaks).toHaveLength(1)
  })
  it('lets go of a demo that was left, without a word of anything broken', async () => {
    const app = await testApp({ live: true })
    const folder = scratch('anchor')
    await run(app, folder)
    const empty = await run(app, folder, () =>
      app.post('/api/shop/leave-demo', { confirm: 'leave the demo' }, RUNA),
    )
    expect([empty.anchor, empty.breaks]).toEqual([undefined, undefined])
    const begun = await run(app, folder, () =>
      app.post('/api/people', { name: 'Åse', role: 'lead' }, { 'x-moray-person': '' }),
    )
    expect([begun.anchor!.event, begun.breaks]).toEqual([1, undefined])
  })
})
