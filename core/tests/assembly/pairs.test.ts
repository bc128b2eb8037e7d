import { caseTest } from '../../src/drives/graph/unit-facts.ts'
import { describe, expect, it } from 'vitest'
import { demoSheets } from '../../src/drives/sheets/index.ts'
import type { DriveSheet } from '../../src/drives/sheet.ts'
import { counted } from '../../src/job/closings.ts'
import { usualScopes } from '../../src/route/scope.ts'
import { LONG_RUN } from '../long.ts'
import { random } from '../refused.ts'
import { LiveJob } from './live-job.ts'

/** Units in two cases: the one that leads, whose route joins, fills and runs the unit, and the one that waits for it. */
const UNITS = [
  ['alke-2-lower', 'alke-2-upper'],
  ['havsule-duo-lower', 'havsule-duo-upper'],
] as const
const sheetOf = (id: string): DriveSheet => demoSheets.find((s) => s.id === id)!

/** Each case knows of the other what the server tells it: whether it leads, and what is closed there. */
function know(job: LiveJob, other: LiveJob, follows: boolean) {
  const mesh = other.sheet.meshes[0]?.mesh
  const teeth: Record<string, number> = mesh ? { driver: mesh.pinionTeeth, driven: mesh.gearTeeth } : {}
  job.partnerIs({
    id: other.sheet.id,
    number: '26-201',
    sheetId: other.sheet.id,
    sheetName: other.sheet.name,
    follows,
    facts: { ...teeth, 'has-test': caseTest(other.sheet.graph) !== null },
    closings: counted(other.record.closings).map(({ step, answers, departedFrom }) => ({
      step,
      answers,
      departedFrom,
    })),
  })
}

/** Works on one case as far as it goes by itself. @returns whether anything was done */
function goOn(job: LiveJob): boolean {
  const before = job.order.length
  try {
    job.walk()
  } catch (e) {
    // the other case comes first
    if (!/is shut/.test((e as Error).message)) throw e
  }
  return job.order.length > before
}

const WALKS = LONG_RUN ? 100 : 12

describe('a unit in two cases', () => {
  it.each(Array.from({ length: WALKS }, (_, i) => i + 1))(
    'walk %i brings both cases to their end',
    (seed) => {
      const r = random(seed)
      const any = <T>(of: readonly T[]) => of[Math.floor(r() * of.length)]!
      const cases = any(UNITS).map((id) => {
        const sheet = sheetOf(id)
        const scope = any(usualScopes(sheet).filter((s) => s.mode === 'rebuild' && !s.mounted))
        return new LiveJob(sheet, scope, { seed })
      }) as [LiveJob, LiveJob]
      const [leads, waits] = cases
      const story = cases.map((c) => `${c.sheet.id} ${c.job.plan.scope.usual}`)
      const tell = () => {
        know(leads, waits, false)
        know(waits, leads, true)
      }
      const work = () => {
        for (let more = true; more;) {
          more = false
          for (const c of r() < 0.5 ? cases : [waits, leads]) {
            tell()
            if (goOn(c)) more = true
          }
        }
        tell()
      }
      work()
      if (r() < 0.5) {
        const part = leads.anyPart()
        story.push(leads.repair([part]) ? `repair at ${part}` : '')
        work()
      }
      for (const c of cases) {
        expect(c.job.progress.due?.step.id, story.join('; ')).toBeUndefined()
        expect(c.lines(), story.join('; ')).toEqual([])
      }
    },
  )
})
