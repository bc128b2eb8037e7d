import { endpoints } from '@moray/contract/endpoints'
import { calculation } from '@moray/contract/calculations/registry'
import type { Hono } from 'hono'
import { readJsonText } from '../http/body.ts'
import { paramsOf } from '../http/endpoint.ts'
import type { CalcPool } from './pool.ts'

export function mountCalc(app: Hono, pool: CalcPool) {
  app.post(endpoints.calculate.path, async (c) => {
    const { name } = paramsOf(c, endpoints.calculate)
    calculation(name)
    const text = await readJsonText(c)
    const result = await pool.run(name, text, c.req.raw.signal)
    return c.body(result, 200, { 'content-type': 'application/json' })
  })
}
