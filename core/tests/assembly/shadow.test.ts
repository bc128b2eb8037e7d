import { describe, expect, it } from 'vitest'
import { shadowOf } from '../../src/acts/judge-acts.ts'
import { withFigure } from '../../src/drives/own/body.ts'
import { filled } from '../../src/drives/own/fill.ts'
import { templateOf } from '../../src/drives/own/template.ts'
import type { DriveSheet } from '../../src/drives/sheet.ts'
import { demoSheets } from '../../src/drives/sheets/index.ts'
import { usualScope } from '../../src/route/scope.ts'
import { walkedJob, type Walking } from './walked-job.ts'

const sheetOf = (id: string) => demoSheets.find((s) => s.id === id)!
/** What the list says of a job that today's route has led to handover. */
function said(sheet: DriveSheet, usual: string, walking: Walking = {}) {
  const shadow = shadowOf(walkedJob(sheet, usualScope(sheet, usual), walking))!
  expect(shadow.nothingLeft, 'the route of today has nothing left').toBe(true)
  return shadow.lines.filter((l) => l.colour === 'red').map((l) => `${l.code} ${l.on}`)
}

describe('a job that today’s route leads to handover', () => {
  it.each(demoSheets.map((s) => [s.id, s] as const))('of everything, %s, has nothing red', (_, sheet) => {
    expect(said(sheet, 'full')).toEqual([])
  })
  it.each(['seals:propshaft', 'shift-seal', 'clutch', 'pump', 'service', 'look', 'strike'])(
    'of %s on an outboard that finds nothing has nothing red',
    (usual) => expect(said(sheetOf('lomvi-90'), usual)).toEqual([]),
  )
  it('of a pressure test alone leaves the drain screw that was out unlooked at', () =>
    expect(said(sheetOf('lomvi-90'), 'test')).toEqual(['joint-not-proved drain']))
  it('after a strike goes out with a bent shaft and a cracked case: both are unsafe', () => {
    const red = said(sheetOf('lomvi-90'), 'strike', {
      story: { 'strike.case': 'cracked', 'strike.propshaft.z0': 0.5, 'strike.propshaft.z1': 0.5 },
    })
    expect(red).toEqual(expect.arrayContaining(['unsafe-in housing', 'unsafe-in prop-shaft']))
  })
  it('is opened again for a leak: ring nut and propeller nut stay untorqued, and it goes out dry', () => {
    const loops = [{ why: 'leak' as const, targets: ['prop-seals'], note: 'weeps' }]
    const red = said(sheetOf('lomvi-90'), 'seals:propshaft', { loops })
    expect(red).toEqual(
      expect.arrayContaining([
        'group-not-tight big-ring',
        'group-not-tight propeller-nut',
        'space-empty case',
      ]),
    )
  })
  it('of an own sheet without figures of a test is never proved', () => {
    let bare = templateOf('outboard-fnr', 'own', 'Own')
    for (const [path, v] of Object.entries({
      'groups.big-ring.torqueNm': { min: 190, max: 200 },
      'propellers.only.held': 'tab-washer',
      'groups.propeller-nut.torqueNm': { min: 60, max: 70 },
      'spaces.case.fillMl': 600,
    }))
      bare = withFigure(bare, path, v)
    const red = said(filled(bare), 'full')
    expect(red).toEqual(expect.arrayContaining(['joint-not-proved carrier', 'joint-not-proved propshaft']))
  })
  it('of a lower half on the boat is proved by a test that cannot see it', () => {
    expect(said(sheetOf('alke-2-lower'), 'seals:propshaft')).toEqual([
      'joint-not-proved carrier',
      'joint-not-proved propshaft',
    ])
  })
  it('of new gears keeps the bearings of the old ones, and reads no preload', () => {
    expect(said(sheetOf('lomvi-90'), 'gear-set')).toEqual(
      expect.arrayContaining([
        'condemned-in reverse-ball',
        'condemned-in forward-taper',
        'setting-not-proved bearing:driveshaft-lower',
      ]),
    )
  })
  it('of the input seal of an upper takes the nut off a preloaded pair, and reads nothing', () => {
    expect(said(sheetOf('alke-2-upper'), 'seals:input')).toContain('setting-not-proved bearing:input-inner')
  })
})

it('a job that is over is not judged by a list that did not exist then', () => {
  const sheet = sheetOf('lomvi-90')
  expect(shadowOf({ ...walkedJob(sheet, usualScope(sheet, 'service')), state: 'finished' })).toBeUndefined()
})
