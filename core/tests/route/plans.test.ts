import { describe, expect, it } from 'vitest'
import { demoSheets } from '../../src/drives/sheets/index.ts'
import type { DriveSheet } from '../../src/drives/sheet.ts'
import { planOf } from '../../src/route/plan.ts'
import { usualScopes, type Scope } from '../../src/route/scope.ts'
import { routeAt, startOf, walk } from './walk.ts'

/**
 * What every usual scope of every drive comes to, and what it asks, in a table of its own beside this file: approved by reading it. A plan that reaches one
 * part more, or a route that asks one thing more, fails here.
 */
function table(sheet: DriveSheet): string {
  return usualScopes(sheet)
    .map((scope) => [scope.usual, ...planLines(sheet, scope), ...askedLine(sheet, scope)].join('\n  '))
    .join('\n\n')
    .concat('\n')
}

function planLines(sheet: DriveSheet, scope: Scope): string[] {
  const { off, renew, disturbed, prove, hours, parts, unpriced, apart, drains } = planOf(sheet, scope)
  const list = (what: string, of: readonly string[]) => (of.length ? [`${what}: ${of.join(' ')}`] : [])
  return [
    ...list(
      'off',
      off.map((p) => p.id),
    ),
    ...list(
      'new',
      renew.map((r) => `${r.part} (${r.why})`),
    ),
    ...list('set', disturbed),
    ...list('proved', prove),
    [
      apart ? 'off the boat' : 'on the boat',
      drains ? 'oil out' : 'oil stays',
      `${hours.toFixed(2)} h`,
      `parts ${parts}${unpriced ? ` and ${unpriced} unpriced` : ''}`,
    ].join(', '),
  ]
}

/** Steps and questions of a careful hand; readings, and what is set on a wrench, are counted apart. */
function askedLine(sheet: DriveSheet, scope: Scope): string[] {
  const count = { questions: 0, readings: 0, torques: 0 }
  const { order } = walk(sheet, startOf(sheet, scope), (step, answers, facts) => {
    const { asks } = routeAt(sheet, facts).steps.find((s) => s.id === step)!
    for (const fact of Object.keys(answers)) {
      if (/^torque\.|\.setting$/.test(fact)) count.torques++
      else count[asks.find((a) => a.fact === fact)!.kind === 'number' ? 'readings' : 'questions']++
    }
  })
  const { questions, readings, torques } = count
  return [
    `steps: ${order.join(' ')}`,
    `asked: ${order.length} steps, ${questions} questions, ${readings} readings, ${torques} torques`,
  ]
}

describe('what each usual scope comes to', () => {
  it.each(demoSheets.map((s) => [s.id, s] as const))('on %s', async (id, sheet) => {
    await expect(table(sheet)).toMatchFileSnapshot(`tables/${id}.txt`)
  })
})
