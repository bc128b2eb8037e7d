import { describe, expect, it } from 'vitest'
import { withFigure, type SheetBody } from '../../src/drives/own/body.ts'
import { checkBody } from '../../src/route/check-body.ts'
import { meantByFeeler } from '../../src/drives/own/feeler-window.ts'
import { templateOf } from '../../src/drives/own/template.ts'

const INCH = 25.4
const typed = (figures: Record<string, unknown>): SheetBody =>
  Object.entries(figures).reduce(
    (body, [path, value]) => withFigure(body, `measures.depth.${path}`, value),
    templateOf('outboard-fnr', 'own', 'Own'),
  )
const BLOCK = {
  'how.method': 'feeler-block',
  'how.nominalClearanceMm': 0.025 * INCH,
  'how.nominalDepthMm': 1.513 * INCH,
}
const wrongOf = (body: SheetBody) => checkBody(body).wrong.map((w) => w.path)

describe('the window of a depth that is measured by a block and feelers', () => {
  it('that can only be the feeler’s is said, with the depth that it means', () => {
    const body = typed({ ...BLOCK, window: { min: 0.023 * INCH, max: 0.027 * INCH } })
    const meant = meantByFeeler(body, 'measures.depth.window')!
    expect(meant.min! / INCH).toBeCloseTo(1.511, 9)
    expect(meant.max! / INCH).toBeCloseTo(1.515, 9)
    expect(wrongOf(body)).toContain('measures.depth.window')
  })
  it('that is the depth is taken', () => {
    const body = typed({ ...BLOCK, window: { min: 1.511 * INCH, max: 1.515 * INCH } })
    expect(meantByFeeler(body, 'measures.depth.window')).toBeUndefined()
    expect(wrongOf(body)).not.toContain('measures.depth.window')
  })
  it.each([
    ['no nominal depth is typed yet', { 'how.nominalDepthMm': undefined }],
    ['it is measured against a master', { 'how.method': 'master-drop' }],
  ])('is not doubted where %s', (_, change) => {
    const body = typed({ ...BLOCK, ...change, window: { min: 0.584, max: 0.686 } })
    expect(meantByFeeler(body, 'measures.depth.window')).toBeUndefined()
  })
})
