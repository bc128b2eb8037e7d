import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { backlashTransfer } from '../src/gears/backlash.ts'
import { meshGeometry } from '../src/gears/mesh.ts'
import { depth } from '../src/measuring/depth.ts'
import { judge } from '../src/measuring/judge.ts'
import { preload } from '../src/bearings/preload.ts'
import { floatStack } from '../src/bearings/float-stack.ts'
import { gearFromMeasures } from '../src/gears/gear-from-measures.ts'
import { sensitivityUncertainty } from '../src/gears/sensitivity-uncertainty.ts'
import { pumpVolume } from '../src/leak/pump-volume.ts'
import { swing } from '../src/measuring/swing.ts'
import { reach } from '../src/route/reach.ts'
import { serviceDue } from '../src/service/service-due.ts'
import { clampLoad } from '../src/torque/clamp-load.ts'
import { patternRead } from '../src/contact/pattern-read.ts'
import { leakTest } from '../src/leak/leak-test.ts'
import { rideHeight } from '../src/measuring/ride-height.ts'
import { runout } from '../src/measuring/runout.ts'
import { crush } from '../src/setting/crush.ts'
import { threadedCarrier } from '../src/setting/threaded-carrier.ts'
import { torqueAdapter } from '../src/torque/adapter.ts'
import { lockAlignment } from '../src/torque/lock-alignment.ts'
import { torqueOrder } from '../src/torque/order.ts'
import { shimSolve } from '../src/setting/shim-solve.ts'
import type { ShimSolveResult } from '../src/setting/shim-solve.ts'

interface Case {
  name: string
  input: never
  expect: Record<string, unknown>
  tolerance: number
}

const load = (name: string): Case[] =>
  JSON.parse(readFileSync(new URL(`./cases/${name}.json`, import.meta.url), 'utf8'))

/** Absolute up to 1, relative above. */
function agree(actual: unknown, wanted: unknown, tolerance: number, path: string) {
  if (typeof wanted === 'number') {
    expect(typeof actual, path).toBe('number')
    expect(Math.abs((actual as number) - wanted), path).toBeLessThanOrEqual(
      tolerance * Math.max(1, Math.abs(wanted)),
    )
  } else if (wanted && typeof wanted === 'object')
    for (const [key, value] of Object.entries(wanted))
      agree((actual as never)?.[key], value, tolerance, `${path}.${key}`)
  else expect(actual, path).toEqual(wanted)
}

describe.each([
  ['mesh-geometry', (i: { mesh: never }) => meshGeometry(i.mesh)],
  ['backlash-transfer', backlashTransfer],
  ['depth', depth],
  ['judge', judge],
  ['runout', runout],
  ['ride-height', rideHeight],
  ['preload', preload],
  ['crush', crush],
  ['threaded-carrier', threadedCarrier],
  ['torque-adapter', torqueAdapter],
  ['torque-order', torqueOrder],
  ['lock-alignment', lockAlignment],
  ['leak-test', leakTest],
  ['pattern-read', patternRead],
  ['gear-from-measures', gearFromMeasures],
  ['sensitivity-uncertainty', sensitivityUncertainty],
  ['float-stack', floatStack],
  ['clamp-load', clampLoad],
  ['pump-volume', pumpVolume],
  ['swing', swing],
  ['reach', reach],
  ['service-due', serviceDue],
] as [string, (input: never) => unknown][])('reference cases of %s', (name, compute) => {
  const cases = load(name)
  it('holds cases', () => expect(cases.length).toBeGreaterThan(2))
  it.each(cases.map((c) => [c.name, c] as const))('%s', (_, c) => {
    agree(compute(c.input), c.expect, c.tolerance, c.name)
  })
})

describe('reference cases of shim-solve', () => {
  it.each(load('shim-solve').map((c) => [c.name, c] as const))('%s', (_, c) => {
    const result: ShimSolveResult = shimSolve(c.input)
    expect(result.provedOptimal).toBe(true)
    const wanted = c.expect as {
      bestProbability: number
      probability: number
      pieces: number
      stacks: Record<string, number>
      predicted: object
    }
    if (wanted.probability < 0.02) {
      expect(result.status).toBe('no-fit')
      return
    }
    expect(result.status).toBe('fit')
    const plan = result.plans[0]!
    agree(result.bestProbability, wanted.bestProbability, c.tolerance, 'bestProbability')
    agree(plan.probability, wanted.probability, c.tolerance, 'probability')
    expect(plan.pieces).toBe(wanted.pieces)
    for (const [id, mm] of Object.entries(wanted.stacks))
      agree(plan.stacks[id]!.thicknessMm, mm, c.tolerance, id)
    agree(plan.predicted, wanted.predicted, c.tolerance, 'predicted')
  })
})
