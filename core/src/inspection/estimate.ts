import { labourOf } from '../drives/graph/unit-facts.ts'
import { notNegative } from '../checks/numbers.ts'
import { ALWAYS_NEW, type Part } from '../drives/parts.ts'
import type { DriveSheet } from '../drives/sheet.ts'
import { condemned, criteria, type Grade } from './criteria.ts'

export interface OrderRow {
  /** The part, set or kit that is bought. */
  name: string
  /** Parts that come with it, by name. */
  parts: string[]
  /** Their ids; absent in estimates of an older Moray. */
  ids?: string[]
  why: string
  /** Left out where nobody has said it. */
  price?: number
  waitDays?: number
}

export interface Option {
  id: 'rebuild' | 'exchange' | 'used'
  label: string
  parts: number
  labour: number
  consumables: number
  /** At least this much, where prices of parts are not known. */
  total: number
  /** Left out where it is not known of every part. */
  waitDays?: number
  /** What the money does not say. */
  risks: string[]
  /** Why safety forbids it, whatever it costs; in estimates of an older Moray, which knew of no new case. */
  forbidden?: string
}

export interface Estimate {
  order: OrderRow[]
  options: Option[]
  /** Hours of labour at which the rebuild costs as much as the exchange unit; undefined without one. */
  breakEvenHours?: number
  hours: number
  /** Above the money: what decides whatever it costs. */
  safety: string[]
  /** Rows of the order that have no price: the rebuild costs what is known and more. Left out in estimates of an older Moray. */
  unpriced?: string[]
  /** Cheapest of those that safety allows; undefined when it allows none, or prices that are not known could make another one so. */
  cheapest?: Option['id']
}

export interface EstimateInput {
  grades: Record<string, Grade>
  /** Reasons, by part. */
  reasons?: Record<string, string>
  /** Ids of the criteria that were seen, by part. */
  seen?: Record<string, string[]>
  /** Per hour. */
  rate: number
  consumables: number
  extraHours?: number
  /** What the job's scope renews besides what is condemned, and its hours (route/plan.ts). Everything, and the sheet's hours, where left out. */
  scope?: { renew: { part: string; why: string }[]; hours: number }
}

/** A used unit comes without a history: it is opened, measured and sealed all the same. */
const USED_SHARE_OF_WORK = 0.6

/**
 * What has to be bought, with its ties (one part of a set condemns the set; whatever seals is one kit, bought once), and what
 * a rebuild costs against an exchange unit and a used one. Labour by the sheet's hours. Waiting is the longest delivery.
 * @throws InputError on a negative rate or hours
 */
export function estimate(sheet: DriveSheet, input: EstimateInput): Estimate {
  const rate = notNegative('rate', input.rate)
  const consumables = notNegative('consumables', input.consumables)
  const order = orderList(sheet.parts, input)
  const { exchange, used } = sheet.graph.unit ?? {}
  const labour = labourOf(sheet.graph)
  const hours =
    (input.scope?.hours ?? labour.openHours + labour.setHours + labour.closeHours) +
    notNegative('extraHours', input.extraHours ?? 0)
  const parts = order.reduce((sum, row) => sum + (row.price ?? 0), 0)
  const unpriced = order.filter((row) => row.price === undefined).map((row) => row.name)
  const option = (o: Omit<Option, 'total'>): Option => ({ ...o, total: o.parts + o.labour + o.consumables })
  const swapHours = labour.openHours / 2
  const options: Option[] = [
    option({
      id: 'rebuild',
      label: 'Rebuild',
      parts,
      labour: hours * rate,
      consumables,
      ...(order.some((r) => r.waitDays === undefined)
        ? {}
        : { waitDays: Math.max(0, ...order.map((r) => r.waitDays!)) }),
      risks: [],
    }),
    ...(exchange
      ? [
          option({
            id: 'exchange',
            label: 'Exchange unit',
            parts: exchange.price,
            labour: swapHours * rate,
            consumables: consumables / 2,
            waitDays: exchange.waitDays,
            risks: ['ratio and variant to be checked before it is fitted'],
          }),
        ]
      : []),
    ...(used
      ? [
          option({
            id: 'used',
            label: 'Used unit',
            parts: used.price,
            labour: hours * USED_SHARE_OF_WORK * rate,
            consumables,
            waitDays: used.waitDays,
            risks: ['hours unknown', 'ratio unknown until counted', 'has to be sealed and measured as well'],
          }),
        ]
      : []),
  ]
  const bodyEnds = sheet.parts
    .filter((p) => p.role === 'body' && condemned(input.grades[p.id] ?? 'keep'))
    .flatMap((p) => criteria[p.kind].filter((c) => c.endsRebuild && input.seen?.[p.id]?.includes(c.id)))
  // a cracked case is not rebuilt, but a new one can be built up
  for (const c of bodyEnds)
    options[0]!.risks.push(
      `the old case is scrapped (${c.rule}): everything moves into a new one and has to be set again`,
    )
  const safety = [
    ...bodyEnds.map((c) => `The old case: ${c.rule}.`),
    ...sheet.parts
      .filter((p) => p.kind === 'shaft' && condemned(input.grades[p.id] ?? 'keep'))
      .map((p) => `${p.name}: replaced, not straightened.`),
  ]
  const allowed = options.filter((o) => !o.forbidden)
  const reuse = options[1]?.id === 'exchange' ? options[1] : undefined
  return {
    order,
    options,
    hours,
    ...(unpriced.length ? { unpriced } : {}),
    ...(reuse && rate > 0 && !unpriced.length
      ? { breakEvenHours: (reuse.total - parts - consumables) / rate }
      : {}),
    safety,
    ...cheapestOf(allowed, unpriced.length > 0),
  }
}

/** A rebuild whose parts have prices that nobody knows is never called the cheapest, unless it is the only way. */
function cheapestOf(allowed: Option[], rebuildUnpriced: boolean): Pick<Estimate, 'cheapest'> {
  if (!allowed.length) return {}
  const least = allowed.reduce((a, b) => (b.total < a.total ? b : a))
  const sure = least.id !== 'rebuild' || !rebuildUnpriced || allowed.length === 1
  return sure ? { cheapest: least.id } : {}
}

/** Why a part is new although nobody condemned it. */
const RENEWED: Record<string, string> = {
  wanted: 'what the job is for',
  opening: 'everything that seals is new at an opening',
  disturbed: 'disturbed on the way',
  set: 'sold together with it',
  school: 'the way of this shop',
  pressed: 'pressed on what is scrapped',
  holds: 'holds a clutch that is new',
  once: 'serves only once',
}

function orderList(parts: readonly Part[], input: EstimateInput): OrderRow[] {
  const condemnedHere = (p: Part) => condemned(input.grades[p.id] ?? 'keep')
  const rows = new Map<string, OrderRow>()
  for (const p of parts) {
    const grade = input.grades[p.id]
    const renewed = input.scope?.renew.find((r) => r.part === p.id)
    const always = input.scope ? renewed !== undefined && !condemnedHere(p) : ALWAYS_NEW.includes(p.kind)
    if (!always && !(grade && condemned(grade))) continue
    const name = p.set ?? p.kit ?? p.name
    if (rows.has(name)) continue
    const together = parts.filter((o) => (p.set ? o.set === p.set : p.kit ? o.kit === p.kit : o.id === p.id))
    const why = together
      .filter((o) => condemned(input.grades[o.id] ?? 'keep'))
      .map((o) => `${o.name}: ${input.reasons?.[o.id] ?? 'condemned'}`)
    rows.set(name, {
      name,
      parts: together.map((o) => o.name),
      ids: together.map((o) => o.id),
      why: always
        ? (RENEWED[renewed?.why ?? 'opening'] ?? 'everything that seals is new at an opening')
        : why.join('; '),
      ...(p.price === undefined ? {} : { price: p.price }),
      ...(p.waitDays === undefined ? {} : { waitDays: p.waitDays }),
    })
  }
  return [...rows.values()]
}
