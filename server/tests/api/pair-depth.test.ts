import { bodyOf } from '@moray/core/drives/own/body-of'
import { lomvi90 } from '@moray/core/drives/sheets/index'
import type { DriveSheet } from '@moray/core/drives/sheet'
import type { JobReply } from '@moray/contract/replies'
import { describe, expect, it } from 'vitest'
import { addSheets } from '../../src/drives/sheets.ts'
import { testApp } from '../test-app.ts'
import { enterFound, enterReadings, READ } from '../walk.ts'

/** The demo outboard as if its manual printed no depth, as a newer edition. */
const unprinted: DriveSheet = {
  ...lomvi90,
  version: 90,
  measures: lomvi90.measures.map((m) => {
    if (m.kind !== 'depth') return m
    const { target: _target, ...rest } = m
    return { ...rest, window: {}, nominal: 'of-the-pair' as const }
  }),
}

async function unprintedJob() {
  const app = await testApp()
  await app.db.transaction((tx) => addSheets(tx, [bodyOf(unprinted)]))
  const { body } = await app.post<JobReply>('/api/jobs', {
    sheetId: 'lomvi-90',
    serial: 'LV90-77001',
    boat: 'Terna',
    owner: 'Aud Lervik',
    water: 'salt',
    hours: 300,
    complaint: 'New gears',
  })
  const { id } = body
  const find = (more: object) =>
    app.change(`/api/jobs/${id}/readings`, {
      build: 0,
      measure: 'pair:depth',
      text: '38.5',
      unit: 'mm',
      gaugeId: 'g05',
      ...more,
    })
  return { app, id, find }
}
/** A bowl of 0.4 per mm² round 38.52, on the wedge of these cones (13 : 28 teeth). */
const ridesAt = (places: number[]) =>
  places.map((p) => ({
    place: p.toFixed(2),
    ride: (60 - (13 / 28) * (p - 38.52) + 0.4 * (p - 38.52) ** 2).toFixed(4),
  }))
const rides = ridesAt([38.1, 38.3, 38.5, 38.8, 39.0])

describe('a depth that the manual does not print', () => {
  it('is found by a search, kept with its points, and judges the depth from then on', async () => {
    const { app, id, find } = await unprintedJob()
    await enterFound(app, id)
    const { body: before } = await find({ as: 'loose-pair', text: '38.40' })
    expect(before.builds[0]!.assessment.measures.depth!.window.min).toBeCloseTo(38.35, 9)
    const first = before.builds[0]!.readings[0]!
    await app.post(`/api/jobs/${id}/readings/${first.id}/supersede`, {
      reason: 'the old pair was on the plate',
    })
    const { status, body } = await find({ as: 'ride-height', rides })
    expect(status).toBe(201)
    const kept = body.builds[0]!.readings.find((r) => !r.superseded)!
    expect(kept.how!.rides).toHaveLength(rides.length)
    const geared = lomvi90.meshes[0]!.mesh
    expect([geared.pinionTeeth, geared.gearTeeth]).toEqual([13, 28])
    expect(kept.value).toBeCloseTo(38.52, 2)
    const job = await enterReadings(app, 0, id, READ)
    const { window } = job.builds[0]!.assessment.measures.depth!
    expect((window.min! + window.max!) / 2).toBeCloseTo(kept.value, 9)
    expect(job.builds[0]!.assessment.measures.depth!.judgement!.verdict).not.toBe('no-window')
  })
  it.each([
    ['a search without its points', { as: 'ride-height' }, 'rides', 'are missing'],
    ['points on a loose pair', { as: 'loose-pair', rides }, 'rides', 'ride-height search only'],
    ['no way at all', {}, 'as', 'ride-height search, or on the loose pair'],
    ['three points', { as: 'ride-height', rides: rides.slice(0, 3) }, 'rides', 'at least 4'],
    [
      'a best outside of the places',
      { as: 'ride-height', rides: ridesAt([39, 39.2, 39.4, 39.6]) },
      'rides',
      'on both sides of it',
    ],
    [
      'a place that is no length',
      { as: 'ride-height', rides: [{ place: 'deep', ride: '60' }, ...rides] },
      'rides[0].place',
      '',
    ],
  ])('refuses %s, and keeps nothing of it', async (_, more, path, says) => {
    const { app, id, find } = await unprintedJob()
    const { status, body } = await find(more)
    expect(status).toBe(422)
    expect(body.error.fields[0]).toMatchObject({ path, message: expect.stringContaining(says) })
    expect((await app.job(id)).builds[0]!.readings).toEqual([])
  })
  it('is asked of a drive whose manual prints it in no way', async () => {
    const app = await testApp()
    const { body } = await app.change('/api/jobs/lomvi-skarv/readings', {
      build: 0,
      measure: 'pair:depth',
      text: '38.5',
      unit: 'mm',
      gaugeId: 'g05',
      as: 'loose-pair',
    })
    expect(body.error.fields[0]).toMatchObject({ path: 'measure' })
  })
})
