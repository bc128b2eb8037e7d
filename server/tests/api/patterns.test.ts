import type { ReferencePattern } from '@moray/contract/replies'
import { describe, expect, it } from 'vitest'
import { NOW, testApp, type TestApp } from '../test-app.ts'

const JOB = 'alke-lower'
const LINE = [-0.2, -0.4, 0.4, -0.3, 0.3, 0.5, -0.3, 0.4]
const mark = (app: TestApp, more: object = {}) =>
  app.change(`/api/jobs/${JOB}/patterns`, {
    build: 2,
    mesh: 'forward',
    flank: 'drive',
    place: 1,
    outline: LINE,
    ...more,
  })

describe('a contact pattern', () => {
  it('is kept with its build, by whom and where, and told in the history', async () => {
    const app = await testApp()
    const { status, body } = await mark(app, { note: 'thin compound' })
    expect(status, JSON.stringify(body.error ?? '')).toBe(201)
    expect(body.builds[2]!.patterns).toMatchObject([
      {
        mesh: 'forward',
        flank: 'drive',
        place: 1,
        note: 'thin compound',
        by: 'Ylva Tangvik',
        superseded: null,
      },
    ])
    expect(body.builds[2]!.patterns[0]!.outline).toEqual([
      [-0.2, -0.4],
      [0.4, -0.3],
      [0.3, 0.5],
      [-0.3, 0.4],
    ])
    expect(body.builds[1]!.patterns).toEqual([])
    expect((await app.events(JOB)).at(-1)!.text).toBe(
      'Forward mesh: pattern of the drive flank marked at place 1',
    )
  })

  it('is marked anew with a reason only; both stay, the newer one counts', async () => {
    const app = await testApp()
    await mark(app)
    const without = await mark(app, { outline: LINE.map((v) => v / 2) })
    expect(without.status).toBe(409)
    expect(without.body.error).toMatchObject({ code: 'reason-needed' })
    const { body } = await mark(app, { outline: LINE.map((v) => v / 2), reason: 'smeared, read again' })
    expect(body.builds[2]!.patterns.map((p) => p.superseded?.reason ?? null)).toEqual([
      'smeared, read again',
      null,
    ])
    // another flank and another place are marks of their own
    expect((await mark(app, { flank: 'coast' })).status).toBe(201)
    expect((await mark(app, { place: 2 })).status).toBe(201)
  })

  it('can be neither changed nor deleted', async () => {
    const app = await testApp()
    await mark(app)
    await expect(app.db.query("update pattern_mark set note = 'x'")).rejects.toThrow()
    await expect(app.db.query('delete from pattern_mark')).rejects.toThrow()
    await expect(app.db.script('truncate pattern_mark cascade')).rejects.toThrow()
  })

  it.each([
    [{ mesh: 'nowhere' }, 422, 'mesh'],
    [{ flank: 'side' }, 422, 'flank'],
    [{ place: 5 }, 422, 'place'],
    [{ outline: [0, 0, 1, 0] }, 422, 'outline'],
    [{ outline: [0, 0, 3, 0, 0, 1] }, 422, 'outline[2]'],
    [{ outline: [0, 0, 0.01, 0, 0, 0.01] }, 422, 'outline'],
  ])('is refused by name: %j', async (more, status, path) => {
    const app = await testApp()
    const reply = await mark(app, more)
    expect(reply.status).toBe(status)
    expect(reply.body.error.fields[0]!.path).toBe(path)
    expect((await app.job(JOB)).builds[2]!.patterns).toEqual([])
  })

  it('of a build that is past is not added; of one that is accepted it is a later finding', async () => {
    const app = await testApp()
    expect((await mark(app, { build: 1 })).body.error.code).toBe('stale-build')
    expect((await mark(app, { build: 9 })).status).toBe(404)
    await app.change(`/api/jobs/${JOB}/acceptance`, { build: 2, reason: 'close enough for the trial' })
    expect((await mark(app)).status).toBe(201)
    expect((await app.events(JOB)).at(-1)!.text).toContain('after the build was accepted')
  })

  it('two who mark the same flank at once: one does, the other is asked why', async () => {
    const app = await testApp()
    const both = await Promise.all([mark(app), mark(app, { outline: LINE.map((v) => v / 2) })])
    expect(both.map((r) => r.status).sort()).toEqual([201, 409])
    const { patterns } = (await app.job(JOB)).builds[2]!
    expect(patterns.filter((p) => !p.superseded)).toHaveLength(1)
  })
})

describe('a pattern kept from a good build', () => {
  const LAST = 'lomvi-done'
  const references = (app: TestApp, id: string) =>
    app.get<ReferencePattern[]>(`/api/jobs/${id}/reference-patterns`)
  const outline = [
    [-0.3, -0.4],
    [0.3, -0.4],
    [0.3, 0.4],
    [-0.3, 0.4],
  ]
  const keep = (app: TestApp, flank: string, more = 0) =>
    app.db.query(
      `insert into pattern_mark (build_id, mesh, flank, place, outline, by_person, at)
       select b.id, 'forward', $2, 1, $3::jsonb, 'ylva', $4 from build b join acceptance_standing t on t.build_id = b.id where b.job_id = $1`,
      [LAST, flank, JSON.stringify(outline.map(([x, y]) => [x! + more, y])), NOW],
    )

  it('is shown beside the next job on that drive, and never beside its own', async () => {
    const app = await testApp()
    const before = await references(app, 'lomvi-skarv')
    await keep(app, 'coast', 0.1)
    const found = await references(app, 'lomvi-skarv')
    const coast = found.find((r) => r.mesh === 'forward' && r.flank === 'coast')!
    const { number } = await app.job(LAST)
    expect(found.length).toBeGreaterThanOrEqual(before.length)
    expect(coast).toMatchObject({ number, sameUnit: false })
    expect(coast.outline[0]![0]).toBeCloseTo(-0.2, 12)
    expect((await references(app, LAST)).map((r) => r.number)).not.toContain(number)
    expect((await app.request('/api/jobs/nobody/reference-patterns')).status).toBe(404)
  })
  it('is of this very unit before others, and none of a build that was accepted with a reason', async () => {
    const app = await testApp()
    await keep(app, 'coast')
    const done = await app.job(LAST)
    const { body } = await app.change('/api/jobs', {
      sheetId: 'lomvi-90',
      serial: done.serial,
      boat: done.boat,
      owner: done.owner,
      water: 'salt',
      complaint: 'back for its seals',
    })
    expect((await references(app, body.id)).find((r) => r.flank === 'coast')).toMatchObject({
      sameUnit: true,
    })
    // the same, had it been accepted in spite of something
    await app.db.script(`set session_replication_role = replica; update acceptance set reason = 'good enough'
      where id in (select t.acceptance_id from acceptance_standing t join build b on b.id = t.build_id where b.job_id = '${LAST}');
      set session_replication_role = origin`)
    expect((await references(app, body.id)).map((r) => r.number)).not.toContain(done.number)
    await app.db.script(`set session_replication_role = replica; update acceptance set reason = null
      where id in (select t.acceptance_id from acceptance_standing t join build b on b.id = t.build_id where b.job_id = '${LAST}');
      set session_replication_role = origin`)
  })
})
