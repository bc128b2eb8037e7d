import type { SeeRoute } from '@moray/contract/requests/route'
import type { Told } from '@moray/core/job/event'
import type { JudgedJob } from '@moray/core/job/judged'
import {
  changesBetween,
  printOf,
  routeHash,
  type RouteChanges,
  type StepPrint,
} from '@moray/core/route/route-print'
import type { Route } from '@moray/core/route/route'
import { routeOf } from '@moray/core/route/route-of'
import type { Queryable } from '../db/database.ts'
import { Refusal } from '../http/refusal.ts'
import type { At } from '../job/change.ts'

/** Keeps the print of a route, once for all jobs that have it. @returns its hash */
export async function keepPrint(tx: Queryable, route: Route): Promise<string> {
  const print = printOf(route)
  const hash = routeHash(print)
  await tx.query(
    'insert into route_print (hash, steps) values ($1, $2::jsonb) on conflict (hash) do nothing',
    [hash, JSON.stringify(print)],
  )
  return hash
}

/** What has changed on a job's route since somebody last looked at it; all empty when nothing has. */
export async function routeChanges(db: Queryable, job: JudgedJob): Promise<RouteChanges> {
  const none = { added: [], removed: [], changed: [] }
  if (job.routeHash === null) return none
  const [before] = await db.query<{ steps: StepPrint[] }>('select steps from route_print where hash = $1', [
    job.routeHash,
  ])
  return before ? changesBetween(before.steps, printOf(routeOf(job.sheet))) : none
}

/** Somebody has looked at what a newer Moray changed: from here on the route counts as it is now. */
export async function seeRoute({ tx, job }: At, body: SeeRoute): Promise<Told> {
  const changes = await routeChanges(tx, job)
  const hash = await keepPrint(tx, routeOf(job.sheet))
  if (hash !== body.hash)
    throw new Refusal(409, 'stale-route', 'The route is another one by now; load the page again and look.')
  await tx.query('update job set route_hash = $2 where id = $1', [job.id, hash])
  return {
    kind: 'route-seen',
    subject: 'route',
    data: {
      added: changes.added.length,
      removed: changes.removed.length,
      changed: changes.changed.length,
    },
  }
}
