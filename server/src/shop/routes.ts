import { ChooseSchool, SetLikelihood, SetShopRules } from '@moray/contract/requests/route'
import { routes } from '@moray/contract/routes'
import type { Hono } from 'hono'
import type { Deps } from '../deps.ts'
import { setLikelihood } from '../faults/faults.ts'
import { readBody } from '../http/body.ts'
import { write } from '../http/write.ts'
import { onJob } from '../jobs/on-job.ts'
import { chooseJobSchool } from './job-schools.ts'
import { chooseShopSchool, loadShop, setShopRules } from './shop.ts'

export function mountShop(app: Hono, deps: Deps) {
  app.get(routes.shop, async (c) => c.json(await loadShop(deps.db)))
  app.post(routes.shopSchools, async (c) => {
    const body = await readBody(c, ChooseSchool)
    return write(c, deps, async (tx) => {
      const text = await chooseShopSchool(tx, body)
      return { reply: () => loadShop(tx), event: { kind: 'shop', jobId: null, text } }
    })
  })
  app.post(routes.shopRules, async (c) => {
    const body = await readBody(c, SetShopRules)
    return write(c, deps, async (tx) => {
      const text = await setShopRules(tx, body)
      return { reply: () => loadShop(tx), event: { kind: 'shop', jobId: null, text } }
    })
  })
  app.post(routes.likelihoods, async (c) => {
    const body = await readBody(c, SetLikelihood)
    return write(c, deps, async (tx, who) => {
      const text = await setLikelihood(tx, body, who)
      return { reply: () => loadShop(tx), event: { kind: 'shop', jobId: null, text } }
    })
  })
  const onOne = onJob(deps)
  app.post('/api/jobs/:id/schools', async (c) => {
    const body = await readBody(c, ChooseSchool)
    return onOne(c, 'school', (at) => chooseJobSchool(at, body))
  })
}
