import type { Database } from '../db/database.ts'
import { loadDemo, renewDemoSheets } from '../demo/load.ts'
import { newEpoch } from './epoch.ts'

export interface Beginning {
  /** Id of the shop that the database holds. */
  shop: string
  /** True when it began just now. */
  isNew: boolean
  /** Name of its history. */
  epoch: string
}

/**
 * Makes sure that the database holds a shop, and says which. A new one begins with the demo or empty; of several servers that start at once one begins it.
 * @param options.demo `short`: without the jobs of the past two years
 * @param options.shop id for a new shop
 */
export function beginShop(
  db: Database,
  now: Date,
  options: { demo: boolean | 'short'; shop: string },
): Promise<Beginning> {
  return db.transaction(async (tx) => {
    await tx.query('lock table setting in exclusive mode')
    const rows = await tx.query<{ key: string; value: unknown }>(
      "select key, value from setting where key in ('shop', 'demo')",
    )
    const stored = rows.find((r) => r.key === 'shop')?.value as { id: string } | undefined
    const isDemo = rows.some((r) => r.key === 'demo' && r.value === true)
    const [people] = await tx.query<{ n: number }>('select count(*)::int as n from person')
    const isNew = !stored && !isDemo && people!.n === 0
    const shop = stored?.id ?? options.shop
    if (!stored)
      await tx.query("insert into setting (key, value) values ('shop', jsonb_build_object('id', $1::text))", [
        shop,
      ])
    if (isNew && options.demo) await loadDemo(tx, now, { history: options.demo !== 'short' })
    else if (isDemo) await renewDemoSheets(tx, now)
    const [epoch] = await tx.query<{ name: string }>(
      `insert into setting (key, value) values ('epoch', to_jsonb($1::text)) on conflict (key) do update set value = setting.value returning value #>> '{}' as name`,
      [newEpoch(isDemo || (isNew && options.demo !== false))],
    )
    return { shop, isNew, epoch: epoch!.name }
  })
}
