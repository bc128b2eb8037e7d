import type { JudgedJob } from '@moray/core/job/judged'
import type { DrawerLine, JobPage } from '@moray/contract/replies'
import { checkSheet } from '@moray/core/drives/check-sheet'
import type { DriveSheet } from '@moray/core/drives/sheet'
import { bodyOf } from '@moray/core/drives/own/body-of'
import { lomvi90 } from '@moray/core/drives/sheets/index'
import { describe, expect, it } from 'vitest'
import { demoJobs } from '../../src/demo/jobs.ts'
import { addSheets } from '../../src/drives/sheets.ts'
import { testApp, waitsFor } from '../test-app.ts'
import { JOB } from '../walk.ts'

describe('the demo workshop', () => {
  it('holds together: stock is the sum of its movements, sheets are sound, every job says what it waits for', async () => {
    const app = await testApp()
    const rows = await app.db.query<{ id: string; count: number; booked: number }>(
      `select l.id, l.count, coalesce(sum(m.delta), 0)::int as booked from shim_line l
       left join shim_movement m on m.line_id = l.id group by l.id, l.count`,
    )
    expect(rows.length).toBe(41)
    for (const r of rows) expect(r.count, r.id).toBe(r.booked)
    for (const sheet of await app.get<DriveSheet[]>('/api/drives')) checkSheet(sheet)
    const { jobs } = await app.get<JobPage>('/api/jobs')
    expect(jobs.map((j) => j.id).sort()).toEqual(demoJobs.map((j) => j.id).sort())
    for (const j of jobs) expect(waitsFor(j).length, j.id).toBeGreaterThan(5)
  })

  it.each([
    ['lomvi-teist', 'received', /Leak test as found/],
    ['rordrum', 'teardown', /Parts that this job takes off are still in the case/],
    ['teist-bent', 'waiting', /No decision of the owner/],
    ['alke-lower', 'setting', /Choose the next stacks/],
    ['havsule-upper', 'setting', /Choose the next stacks/],
    ['lomvi-test', 'working', /running since \d\d:36/],
    ['alke-cool', 'working', /Grease splines/],
    ['duo-lower', 'working', /Grease splines/],
    ['lomvi-done', 'finished', /finished/],
    ['alke-upper', 'reopened', /Read the preload before the nut of the input shaft moves/],
    ['lomvi-skarv', 'setting', /Enter pinion shims as found/],
    ['sivkrok', 'received', /Receive it/],
  ])('%s is %s', async (id, state, waits) => {
    const job = await (await testApp()).job(id)
    expect(job.state).toBe(state)
    expect(waitsFor(job)).toMatch(waits)
  })

  it('holds a row half full, a bent shaft with its set, a fall that was only cold, and a departure', async () => {
    const app = await testApp()
    const rordrum = await app.job('rordrum')
    expect(rordrum.row).toHaveLength(9)
    const bent = await app.job('teist-bent')
    expect(bent.facts['strike.bent']).toBe(true)
    expect(bent.grades.filter((g) => g.grade === 'replace-set').map((g) => g.part)).toEqual([
      'prop-shaft',
      'pinion',
    ])
    const cool = (await app.job('alke-cool')).facts
    expect([cool['leak-case.start'], cool['leak-case.end']]).toEqual([80, 76])
    expect(cool['leak-case.verdict']).toBe('tight')
    const skarv = (await app.job('lomvi-skarv')).closings.find((s) => s.step === 'shims')!
    expect(skarv).toMatchObject({
      reason: expect.stringContaining('Bagged'),
      departedFrom: [expect.any(String)],
    })
  })

  it('keeps reserved pieces of open trials apart from those that have left with a drive', async () => {
    const app = await testApp()
    const open = await app.job('alke-lower')
    const done = await app.job('lomvi-done')
    const drawerPieces = (j: JudgedJob) =>
      j.builds
        .at(-1)!
        .stacks.flatMap((s) => s.pieces)
        .filter((p) => p.origin === 'drawer').length
    expect(drawerPieces(done)).toBeGreaterThan(0)
    const reserved = (await app.get<DrawerLine[]>('/api/drawer')).reduce((n, l) => n + l.reserved, 0)
    expect(reserved).toBe(drawerPieces(open))
  })

  it('shows a setting after two trials that a third will end, and one that is finished as promised', async () => {
    const app = await testApp()
    const open = await app.job('alke-lower')
    expect(open.builds.map((b) => b.assessment.allIn)).toEqual([false, false, false])
    expect(waitsFor(open)).toBe('Choose the next stacks')
    const done = await app.job('lomvi-done')
    expect(done.acceptance).toMatchObject({ build: 1, reason: null })
    expect(done.builds[1]!.check.every((c) => !c.disagrees)).toBe(true)
    expect(done.builds[1]!.assessment.allIn).toBe(true)
  })
})

describe('versions of a sheet', () => {
  it('leave an open job with the one it began with, and say that a newer one exists', async () => {
    const app = await testApp()
    const newer = {
      ...lomvi90,
      version: lomvi90.version + 1,
      measures: lomvi90.measures.map((m) => ({ ...m, window: { min: 0, max: 100 } })),
    }
    await app.db.query(
      'insert into drive_sheet (id, version, edition, body) values ($1, $2, $2, $3::jsonb)',
      [newer.id, newer.version, JSON.stringify(newer)],
    )
    const job = await app.job(`${JOB}`)
    expect(job.newerSheetVersion).toBe(newer.version)
    expect(job.sheet.measures[0]!.window).toEqual(lomvi90.measures[0]!.window)
    expect((await app.get<DriveSheet>('/api/drives/lomvi-90')).version).toBe(newer.version)
    expect((await app.job('alke-lower')).newerSheetVersion).toBeNull()
  })
  it('come with a new Moray even where a job has taken their number for itself', async () => {
    const app = await testApp()
    const taken = lomvi90.version + 1
    await app.db.query(
      'insert into drive_sheet (id, version, edition, body) values ($1, $2, null, $3::jsonb)',
      [lomvi90.id, taken, JSON.stringify({ ...lomvi90, version: taken })],
    )
    const newer = { ...bodyOf(lomvi90), version: taken, name: 'Lomvi 90, new' }
    expect(await app.db.transaction((tx) => addSheets(tx, [newer]))).toBe(1)
    expect(await app.db.transaction((tx) => addSheets(tx, [newer]))).toBe(0)
    expect(await app.get<DriveSheet>('/api/drives/lomvi-90')).toMatchObject({
      version: taken + 1,
      name: 'Lomvi 90, new',
    })
  })
})

describe('drives that have nothing to shim', () => {
  it.each(['sivkrok', 'rordrum', 'teist-bent'])(
    '%s is measured, judged and accepted all the same',
    async (id) => {
      const app = await testApp()
      let job = await app.job(`${id}`)
      for (const m of job.sheet.measures)
        for (let i = 0; i < m.readings; i++) {
          const { min, max } = m.window
          const text = `${(((min ?? 0) + (max ?? 1)) / 2).toFixed(3)} mm`
          const reply = await app.change(`/api/jobs/${id}/readings`, {
            build: 0,
            measure: m.id,
            text,
            unit: 'mm',
            gaugeId: 'g04',
          })
          expect(reply.status).toBe(201)
          job = reply.body
        }
      expect(job.builds[0]!.assessment.allIn).toBe(true)
      const accepted = await app.change(`/api/jobs/${id}/acceptance`, { build: 0 })
      expect(accepted.status).toBe(201)
      expect(accepted.body.acceptance).toMatchObject({ build: 0 })
    },
  )
})
