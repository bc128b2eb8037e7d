import { assumed, ifAny, said } from '../graph/edges.ts'
import {
  CASE_SPACE,
  MOUNT,
  type Anode,
  type Graph,
  type GraphPart,
  type SealFit,
  type SealPair,
  type Space,
  type Test,
  type Unit,
  type Way,
} from '../graph/rows.ts'
import { SHEET_FORMAT, type SheetBody } from '../own/body.ts'
import { ofVariant, patchBetween } from '../own/variants.ts'
import { asBody3, type StoredBefore3 } from './before-3.ts'
import type { Body3, Leak3, Part3 } from './body-3.ts'
import { groupsOf } from './groups.ts'
import { interfaceOf, jointsOf } from './joints.ts'
import { movedPath, movesOf } from './paths.ts'

/** Whatever was stored as a sheet, since the first Moray. */
export type StoredSheet = SheetBody | Body3 | StoredBefore3

/**
 * A stored sheet as a body of the present format, whichever Moray wrote it. Nothing is lost, no figure is invented; edges that the older one only implied
 * are marked as assumed. Docs: docs/format.md.
 */
export function asBody(stored: StoredSheet): SheetBody {
  if ('format' in stored && stored.format === SHEET_FORMAT) return stored
  return upgraded(asBody3(stored as Body3 | StoredBefore3))
}

/** A sheet of format 3 as one graph; its variants become the difference that they make to it. */
export function upgraded(body: Body3): SheetBody {
  const base = oneSheet(body)
  const variants = body.variants?.map((v) => ({
    ...v,
    patch: patchBetween(base, oneSheet(ofVariant(body as never, v) as unknown as Body3)),
  }))
  const moves = movesOf(base)
  const sources = body.sources?.map((s) => ({ ...s, path: movedPath(s.path, moves) }))
  return { ...base, ...(sources ? { sources } : {}), ...(variants ? { variants } : {}) }
}

function oneSheet(body: Body3): SheetBody {
  const {
    format: _format,
    oilCapacityMl,
    parts,
    fasteners: _fasteners,
    further = {},
    bench,
    sources: _sources,
    variants: _variants,
    ...head
  } = body
  const { groups, propellers, facts } = groupsOf(body)
  const joints = jointsOf(body, groups, facts)
  const graph: Graph = {
    parts: parts.filter((p) => p.kind !== 'nut').map((p) => partOf(p, parts)),
    ...listed('groups', groups),
    ...listed('joints', joints),
    interfaces: [interfaceOf(body)],
    spaces: [spaceOf(body, oilCapacityMl)],
    ...listed(
      'sealFits',
      (further.sealDetails ?? []).map((s) => sealFitOf(s, parts)),
    ),
    ...listed('sealPairs', pairsOf(bench)),
    ...listed('propellers', propellers),
    ...listed('anodes', anodesOf(body)),
    ...listed('tools', further.tools ?? []),
    ...listed('ways', waysOf(bench)),
    ...listed('tests', testsOf(bench)),
    ...ifFilled('unit', unitOf(body)),
    upgraded: {
      from: 3,
      rows: { ...facts, ...(propellers[0] ? { firstPropeller: propellers[0].id } : {}) },
    },
  }
  return { ...head, format: SHEET_FORMAT, ...graph }
}

const listed = <K extends keyof Graph>(name: K, rows: NonNullable<Graph[K]> & unknown[]) =>
  (rows.length ? { [name]: rows } : {}) as Pick<Graph, K>
const ifFilled = <K extends string, T extends object>(name: K, value: T) =>
  (Object.keys(value).length ? { [name]: value } : {}) as { [k in K]?: T }

/** What was waited for is waited for still, but nuts: their groups say themselves what they hold. */
function partOf(p: Part3, all: readonly Part3[]): GraphPart {
  const { after, apart, thread: _thread, ...rest } = p
  const isNut = (id: string) => all.some((x) => x.id === id && x.kind === 'nut')
  return {
    ...rest,
    ...ifAny('after', said(...(after ?? []).filter((id) => !isNut(id)))),
    ...(apart ? { interfaces: said(MOUNT) } : {}),
  }
}

function spaceOf({ bench }: Body3, fillMl: number | undefined): Space {
  const volumeMl = bench.leak?.volumeMl
  return {
    id: CASE_SPACE,
    name: 'Gearcase',
    holds: bench.lubricant ?? 'oil',
    ...(volumeMl === undefined ? {} : { volumeMl }),
    ...(fillMl === undefined ? {} : { fillMl }),
    ...(bench.joins?.oilJoint ? { connected: said(MOUNT) } : {}),
  }
}

function sealFitOf(
  s: NonNullable<NonNullable<Body3['further']>['sealDetails']>[number],
  parts: readonly Part3[],
): SealFit {
  const same = parts.filter((p) => s.seal !== undefined && p.kind === 'seal' && p.place === `seal:${s.seal}`)
  return { ...s, ...ifAny('part', assumed(...same.map((p) => p.id))) }
}

function pairsOf({ seals, sealSprings }: Body3['bench']): SealPair[] {
  if (!seals?.pair && !sealSprings) return []
  return [
    {
      id: 'pair',
      ...(seals?.pair ? { sharedStep: true } : {}),
      ...(sealSprings ? { springs: sealSprings } : {}),
    },
  ]
}

/** What the bench said of anodes in one line is a row where there are none, and words of the first row where there are. */
function anodesOf({ bench, further }: Body3): Anode[] {
  const rows: Anode[] = (further?.anodes ?? []).map((a) => ({ ...a }))
  if (!bench.anodes) return rows
  if (!rows.length) return [{ id: 'anodes', place: bench.anodes }]
  return [{ ...rows[0]!, said: [{ of: 'anodes', text: bench.anodes }] }, ...rows.slice(1)]
}

function waysOf(bench: Body3['bench']): Way[] {
  const texts = {
    'race-letters': bench.raceLetters,
    'oil-feed': bench.oilFeed,
    'water-tube': bench.waterTube,
    'shift-rod': bench.shiftRod,
  }
  return Object.entries(texts).flatMap(([id, text]) => (text ? [{ id, text }] : []))
}

function testsOf({ leak, noTest, joins }: Body3['bench']): Test[] {
  const { volumeMl: _ofTheSpace, ...plan }: Leak3 = leak ?? {}
  const own = { ...plan, ...(noTest ? { noTest } : {}) }
  return [
    ...(Object.keys(own).length ? [{ id: 'case' as const, ...own }] : []),
    ...(joins?.oilJoint ? [{ id: 'joined' as const, ...joins.oilJoint }] : []),
  ]
}

function unitOf({ bench, further = {} }: Body3): Unit {
  const { openGear, shifts, telltale, weightKg, labour, exchange, used } = bench
  const { shiftStates, attitudes, cautions, trimTab, partner, plateAt, stampsAt } = further
  const unit: Record<string, unknown> = {
    openGear,
    shifts,
    telltale,
    weightKg,
    hours: labour,
    exchange,
    used,
    levers: shiftStates?.length ? shiftStates : undefined,
    attitudes: attitudes?.length ? attitudes : undefined,
    cautions: cautions?.length ? cautions : undefined,
    trimTab,
    partner,
    plateAt,
    stampsAt,
  }
  return Object.fromEntries(Object.entries(unit).filter(([, v]) => v !== undefined)) as Unit
}
