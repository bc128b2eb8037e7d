import { describe, expect, it } from 'vitest'
import { pushedFlank } from '../../src/gears/flank.ts'
import { bodyOf } from '../../src/drives/own/body-of.ts'
import { checkBody } from '../../src/route/check-body.ts'
import { readEntry, withEntry } from '../../src/drives/own/entry.ts'
import { figureFields } from '../../src/drives/own/figures.ts'
import { filled } from '../../src/drives/own/fill.ts'
import { templateOf } from '../../src/drives/own/template.ts'
import { demoSheets } from '../../src/drives/sheets/index.ts'

const own = templateOf('outboard-fnr', 'own', 'Own')
const flankFieldsOf = (body: Parameters<typeof figureFields>[0]) =>
  figureFields(body)
    .map((f) => f.path)
    .filter((p) => /pushed|pinionHand|pinionTurns/.test(p))

describe('which flank is pushed, on a sheet of one’s own', () => {
  it('is nowhere said at first, and asked once for both pairs of one pinion', () => {
    expect(filled(own).meshes.map(pushedFlank)).toEqual([undefined, undefined])
    const [first] = own.meshes
    expect(flankFieldsOf(own)).toEqual(
      ['pushed', 'pinionHand', 'pinionTurns'].map((name) => `meshes.${first!.id}.${name}`),
    )
  })
  it('is answered by the picture for both pairs', () => {
    const path = `meshes.${own.meshes[0]!.id}.pushed`
    const { value, source } = readEntry(
      own,
      { path, text: 'convex', source: 'measured' },
      { at: new Date(0) },
    )
    const body = withEntry(own, path, value, source)
    expect(filled(body).meshes.map(pushedFlank)).toEqual(['convex', 'convex'])
  })
  it('is not asked where the teeth are straight', () => {
    const straight = { ...own, meshes: own.meshes.map((m) => ({ ...m, form: 'straight' as const })) }
    expect(flankFieldsOf(straight)).toEqual([])
  })
  it('that contradicts hand and turning is refused with the place and what to look at', () => {
    const lomvi = bodyOf(demoSheets.find((s) => s.id === 'lomvi-90')!)
    expect(checkBody(lomvi).wrong).toEqual([])
    const wrong = withEntry(lomvi, 'meshes.forward.pushed', 'concave', undefined)
    expect(checkBody(wrong).wrong[0]).toMatchObject({
      path: 'meshes.forward.pushed',
      message: expect.stringContaining('left-hand pinion that turns clockwise pushes the convex flank'),
    })
  })
})
