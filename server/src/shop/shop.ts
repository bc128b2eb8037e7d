import type { Shop } from '@moray/contract/replies'
import type { ChooseSchool, SetShopRules } from '@moray/contract/requests/shop'
import { refuse } from '@moray/core/checks/input-error'
import type { Told } from '@moray/core/job/event'
import { USUAL_WAYS } from '@moray/core/job/record'
import { schools } from '@moray/core/route/schools'
import type { Queryable, Transaction } from '../db/database.ts'
import { causesFound, likelihoodEdits } from '../faults/faults.ts'
import { Refusal } from '../http/refusal.ts'
import { waysOf, type StoredWays } from '../job/ways.ts'

async function settings(db: Queryable): Promise<StoredWays & { demo?: boolean }> {
  const [row] = await db.query<{ all: (StoredWays & { demo?: boolean }) | null }>(
    `select json_object_agg(key, value) as all from setting where key in ('schools', 'rules', 'stands', 'demo')`,
  )
  return row?.all ?? {}
}

/** Changes one setting; `value` is merged into what is there when it is an object. */
async function store(tx: Transaction, key: string, value: unknown) {
  await tx.query(
    `insert into setting (key, value) values ($1, $2::jsonb) on conflict (key) do update set value =
       case when jsonb_typeof(excluded.value) = 'object' then setting.value || excluded.value else excluded.value end`,
    [key, JSON.stringify(value)],
  )
}

export async function loadShop(db: Queryable): Promise<Shop> {
  const stored = await settings(db)
  return {
    ...waysOf(stored),
    edits: await likelihoodEdits(db),
    found: await causesFound(db),
    demo: stored.demo === true,
  }
}

export const shopStands = async (db: Queryable): Promise<string[]> =>
  (await settings(db)).stands ?? USUAL_WAYS.stands

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

export async function chooseShopSchool(tx: Transaction, body: ChooseSchool): Promise<Told> {
  const { school, option } = mustBeSchool(body)
  await store(tx, 'schools', { [school.id]: option.value })
  return {
    kind: 'shop',
    subject: `school:${school.id}`,
    data: { about: 'school', question: school.question, label: option.label },
  }
}

export async function setShopRules(tx: Transaction, body: SetShopRules): Promise<Told> {
  const { stands, rate = null, consumables = null, currency = null, units = null, ...others } = body
  const rules = { ...others, rate, consumables, currency, units }
  const unique = [...new Set(stands)]
  const taken = await tx.query<{ stand: string; number: string }>(
    "select stand, number from job where stand is not null and state not in ('finished', 'closed') and stand <> all($1)",
    [unique],
  )
  if (taken.length)
    throw new Refusal(
      409,
      'stand-taken',
      `${taken.map((t) => `${t.stand} holds ${t.number}`).join(', ')}. Clear it before the stand goes.`,
      [{ path: 'stands', message: `must keep ${taken.map((t) => t.stand).join(', ')}` }],
    )
  await store(tx, 'rules', rules)
  await store(tx, 'stands', unique)
  return {
    kind: 'shop',
    subject: 'rules',
    data: {
      about: 'rules',
      departuresNeedLead: body.departuresNeedLead,
      ...(rate === null ? {} : { rate }),
      ...(currency === null ? {} : { currency }),
    },
  }
}
