import type { Shop, ShopRules } from '@moray/contract/replies'
import type { ChooseSchool, SetShopRules } from '@moray/contract/requests/route'
import { schools } from '@moray/core/route/schools'
import { refuse } from '@moray/core/checks/input-error'
import type { Queryable, Transaction } from '../db/database.ts'
import { faultHistory, likelihoodEdits } from '../faults/faults.ts'

const USUAL_RULES: ShopRules = { departuresNeedLead: false, rate: 950, consumables: 600, currency: 'kr' }

async function settingOf<T>(db: Queryable, key: string, otherwise: T): Promise<T> {
  const [row] = await db.query<{ value: T }>('select value from setting where key = $1', [key])
  return row ? row.value : otherwise
}

async function store(tx: Transaction, key: string, value: unknown) {
  await tx.query(
    'insert into setting (key, value) values ($1, $2::jsonb) on conflict (key) do update set value = excluded.value',
    [key, JSON.stringify(value)],
  )
}

export const shopSchools = (db: Queryable) => settingOf<Record<string, string>>(db, 'schools', {})
export const shopRules = async (db: Queryable): Promise<ShopRules> => ({
  ...USUAL_RULES,
  ...(await settingOf<Partial<ShopRules>>(db, 'rules', {})),
})
export const shopStands = (db: Queryable) =>
  settingOf<string[]>(db, 'stands', ['Stand 1', 'Stand 2', 'Stand 3'])

export async function loadShop(db: Queryable): Promise<Shop> {
  const found: Record<string, number> = {}
  for (const { cause } of await faultHistory(db, null)) found[cause] = (found[cause] ?? 0) + 1
  return {
    schools: await shopSchools(db),
    rules: await shopRules(db),
    stands: await shopStands(db),
    edits: await likelihoodEdits(db),
    found,
  }
}

/** What is asked for, of the schools that there are. */
export function mustBeSchool(body: ChooseSchool) {
  const school = schools.find((s) => s.id === body.school)
  if (!school)
    refuse('school', `"${body.school}" is no school; there are ${schools.map((s) => s.id).join(', ')}`)
  const option = school.options.find((o) => o.value === body.choice)
  if (!option)
    refuse(
      'choice',
      `"${body.choice}" is no choice; there are ${school.options.map((o) => o.value).join(', ')}`,
    )
  return { school, option }
}

export async function chooseShopSchool(tx: Transaction, body: ChooseSchool): Promise<string> {
  const { school, option } = mustBeSchool(body)
  await store(tx, 'schools', { ...(await shopSchools(tx)), [school.id]: option.value })
  return `Shop: ${school.question.toLowerCase()}: ${option.label}`
}

export async function setShopRules(tx: Transaction, body: SetShopRules): Promise<string> {
  const { stands, ...rules } = body
  await store(tx, 'rules', rules)
  await store(tx, 'stands', [...new Set(stands.map((s) => s.trim()).filter(Boolean))])
  return `Shop rules: ${body.departuresNeedLead ? 'departures need the lead' : 'departures by whoever works'}, ${body.rate} ${body.currency} an hour`
}
