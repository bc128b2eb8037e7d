import { describe, expect, it } from 'vitest'
import { demoSheets } from '../../src/drives/sheets/index.ts'
import { timeOf } from '../../src/route/occurrence.ts'
import { usualScopes } from '../../src/route/scope.ts'
import { random } from '../refused.ts'
import { LiveJob } from './live-job.ts'

const EVERY = demoSheets.flatMap((s) => usualScopes(s).map((u) => [`${s.id}, ${u.usual}`, s, u] as const))

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
  const kind = Math.floor(random() * 4)
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
      job.takeBack(any.step)
      return `${any.step} taken back`
    }
  }
}

const WALKS = Number(process.env.WALKS ?? 40)

describe('whatever befalls a job', () => {
  it.each(Array.from({ length: WALKS }, (_, i) => i + 1))('walk %i comes to its end', (seed) => {
    const r = random(seed)
    const [, sheet, scope] = EVERY[Math.floor(r() * EVERY.length)]!
    const choice = scope.mode === 'look' || scope.mode === 'strike' ? 'stop' : 'rebuild'
    const job = new LiveJob(sheet, scope, { seed }, choice)
    const story = [`${sheet.id} ${scope.usual}`]
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
