import { calculateSteps } from '@moray/contract/calculations/registry'
import type { Hono } from 'hono'
import { readJson } from '../http/body.ts'

/** How long a calculation may keep the server to itself before others get a turn. */
const TURN_MS = 15

export function mountCalc(app: Hono) {
  app.post('/api/calc/:name', async (c) =>
    c.json(await inTurns(calculateSteps(c.req.param('name'), await readJson(c)), c.req.raw.signal)),
  )
}

/** Runs a stepped calculation without stalling the loop; stops when the asker has gone. */
async function inTurns<T>(steps: Generator<unknown, T>, gone: AbortSignal): Promise<T> {
  let turn = performance.now()
  for (;;) {
    const step = steps.next()
    if (step.done) return step.value
    if (performance.now() - turn < TURN_MS) continue
    await new Promise((resolve) => setImmediate(resolve))
    gone.throwIfAborted()
    turn = performance.now()
  }
}
