import { describe, expect, it } from 'vitest'
import type { DriveSheet } from '../../src/drives/sheet.ts'
import { demoSheets } from '../../src/drives/sheets/index.ts'
import { timeOf } from '../../src/route/occurrence.ts'
import { stepsOf } from '../../src/job/acts/claims.ts'
import { actsOfStep, classesOn } from '../../src/route/step-acts.ts'
import { usualScopes } from '../../src/route/scope.ts'
import { random } from '../refused.ts'
import { ownSheets } from './own-sheets.ts'
import { LiveJob } from './live-job.ts'

const scopesOf = (name: string, sheet: DriveSheet) =>
  usualScopes(sheet).map((u) => [`${name}, ${u.usual}`, sheet, u] as const)
/** Every usual scope of every drive of the demo, and of an own drive of every family. */
const EVERY = [
  ...demoSheets.flatMap((s) => scopesOf(s.id, s)),
  ...ownSheets.flatMap(({ family, typed }) => scopesOf(`own ${family}`, typed)),
]

describe('a careful hand', () => {
  it.each(EVERY)(
    '%s comes to the end that it wants, with nothing left that is not as it must be',
    (_, sheet, scope) => {
      const choice = scope.mode === 'look' || scope.mode === 'strike' ? 'stop' : 'rebuild'
      const job = new LiveJob(sheet, scope, {}, choice).walk()
      expect(job.lines()).toEqual([])
      expect(job.order.at(-1)).toBe('handover')
      expect(job.order.filter((step) => timeOf(step) > 1)).toEqual([])
    },
  )
})

/** What befalls a job on its way, by chance. */
function befall(job: LiveJob): string {
  const { random } = job
  const kind = Math.floor(random() * 5)
  const part = job.anyPart()
  switch (kind) {
    case 0:
      return job.repair([part]) ? `repair at ${part}` : ''
    case 1:
      if (job.record.row.some((r) => r.part === part)) return ''
      job.tap(part)
      return `${part} off`
    case 2: {
      const { kind: of } = job.sheet.parts.find((p) => p.id === part)!
      if (of === 'seal' || of === 'ring') return ''
      job.graded([part], 'replace')
      return `${part} condemned`
    }
    default: {
      const closed = job.record.closings.filter((c) => !c.takenBack)
      const any = closed[Math.floor(random() * closed.length)]
      if (!any) return ''
      if (kind === 3) return job.undo(any.step) ? `${any.step} undone` : ''
      job.takeBack(any.step)
      return `${any.step} taken back`
    }
  }
}

const WALKS = Number(process.env.WALKS ?? 400)

describe('whatever befalls a job', () => {
  it.each(Array.from({ length: WALKS }, (_, i) => i + 1))('walk %i comes to its end', (seed) => {
    const r = random(seed)
    const [name, sheet, scope] = EVERY[Math.floor(r() * EVERY.length)]!
    const choice = scope.mode === 'look' || scope.mode === 'strike' ? 'stop' : 'rebuild'
    const job = new LiveJob(sheet, scope, { seed }, choice)
    const story: string[] = [name]
    try {
      const stops = 1 + Math.floor(r() * 3)
      for (let k = 0; k < stops; k++) {
        const { steps } = job.job.route
        job.walk(steps[Math.floor(r() * steps.length)]!.id)
        story.push(`at ${job.job.progress.due?.step.id}: ${befall(job)}`)
      }
      job.walk()
    } catch (e) {
      throw new Error(`${story.join('; ')}: ${(e as Error).message}`, { cause: e })
    }
    expect(job.lines(), story.join('; ')).toEqual([])
  })
})

const BARE = ownSheets.flatMap(({ family, bare }) => scopesOf(`bare ${family}`, bare))

describe('every act that is left has its step', () => {
  it.each([...EVERY, ...BARE])('%s', (_, sheet, scope) => {
    const { job } = new LiveJob(sheet, scope)
    const here = new Set(job.progress.steps.flatMap((s) => (s.state === 'not-here' ? [] : [s.step.id])))
    const steps = stepsOf(sheet)
    const classes = classesOn(sheet)
    const without = job.work.left.deeds.filter(
      (d) => ![...here].some((id) => actsOfStep(id, steps).some((c) => classes(d).includes(c))),
    )
    expect(without.map((d) => `${d.do} ${d.on}`)).toEqual([])
  })
})
