import { refuse, type FieldProblem } from '@moray/core/checks/input-error'
import type { Adjuster, DriveSheet } from '@moray/core/drives/sheet'
import { isCarrier, lockStepMm, shimAdjusters } from '@moray/core/drives/sheet'
import { stepsLeft, turnedBetween } from '@moray/core/setting/turned'
import type { Told } from '@moray/core/job/event'
import type { JudgedBuild } from '@moray/core/job/judge-builds'
import { availablePieces, piecesInUse, type AvailablePiece } from '@moray/core/job/pieces'
import { isSettable } from '@moray/core/setting/assess'
import { learnedSolverInput } from '@moray/core/setting/learned'
import { heldLinesAndExperience } from './experience.ts'
import { pieceCuts, THICKNESS_SLACK_MM } from '@moray/core/setting/shim-problem'
import { predictStacks } from '@moray/core/setting/shim-solve'
import { showBoth, showMm } from '@moray/core/units/format'
import type { TakePlan, TrialPiece } from '@moray/contract/requests/setting'
import type { Transaction } from '../db/database.ts'
import { moveAll, type Movement } from '../drawer/drawer.ts'
import { Refusal } from '../http/refusal.ts'
import type { Who } from '../request/who.ts'
import type { At } from '../job/change.ts'

/** A piece of the plan, with the thickness that it is built in with. */
type ChosenPiece = AvailablePiece & { thinned?: true }
type Chosen = Map<string, ChosenPiece[]>

/**
 * Takes a plan: the next trial is recorded with its stacks and what they promise, pieces leave the drawer, and
 * those of the trial before that are no longer needed go back. The promise is computed here, from the stored
 * readings of all builds, whatever the browser thought.
 */
export async function takePlan({ tx, job, who }: At, body: TakePlan): Promise<Told> {
  const { sheet, builds } = job
  const from = builds.at(-1)!
  if (from.number !== body.fromBuild)
    throw new Refusal(
      409,
      'stale-build',
      `Somebody has built trial ${from.number} since this plan was made; look at it and solve again.`,
    )
  // what was accepted is decided: opened again since, it is read anew in a round of its own
  if (!from.acceptance && !from.assessment.decidable)
    throw new Refusal(
      422,
      'not-measured',
      'Finish the stacks and readings of the present build before the next one.',
    )
  const { lines, experience } = await heldLinesAndExperience(
    tx,
    linesOf([...idsAsked(body), ...piecesInUse(from).keys()]),
    sheet,
    job.id,
  )
  const chosen = choose(sheet, from, availablePieces(lines, builds), body)
  const turned = turn(sheet, from, body)
  checkStacks(sheet, chosen)
  await moveStock(tx, job, from, chosen, who)

  const thickness = Object.fromEntries([
    ...[...chosen].map(([id, pieces]) => [id, sum(pieces)] as const),
    ...[...turned].map(([id, { mm }]) => [id, mm] as const),
  ])
  const isKnown = shimAdjusters(sheet).every((a) => chosen.has(a.id))
  const plan =
    isSettable(sheet) && isKnown
      ? predictStacks(
          learnedSolverInput(
            sheet,
            builds.map((b) => b.state),
            [],
            undefined,
            experience,
          ),
          thickness,
        )
      : { predicted: {}, probability: null }
  const number = from.number + 1
  const carriers = [...turned].map(([location, { mm }]) => ({ location, turned: mm, pieces: [] }))
  const shims = [...chosen].map(([location, pieces]) => ({
    location,
    turned: null,
    pieces: pieces.map((p, position) => ({
      position,
      mm: p.thicknessMm,
      text: showMm(p.thicknessMm, 3),
      line: p.origin === 'drawer' ? p.id.slice(1) : null,
      found: p.origin === 'case' ? Number(p.id.slice(1)) : null,
      thinned: p.thinned ?? false,
    })),
  }))
  await tx.query(
    `with built as (
       insert into build (job_id, number, plan, by_person, at) values ($1, $2, $3::jsonb, $4, $5) returning id
     ), stacked as (
       insert into stack (build_id, location, turned_mm, by_person, at)
       select b.id, s ->> 'location', (s ->> 'turned')::float8, $4, $5 from built b, jsonb_array_elements($6::jsonb) s returning id, location
     )
     insert into stack_piece (stack_id, position, thickness_mm, text, line_id, found_piece_id, thinned)
     select k.id, (p ->> 'position')::int, (p ->> 'mm')::float8, p ->> 'text', p ->> 'line', (p ->> 'found')::bigint, (p ->> 'thinned')::boolean
     from jsonb_array_elements($6::jsonb) s join stacked k on k.location = s ->> 'location', jsonb_array_elements(s -> 'pieces') p`,
    [job.id, number, JSON.stringify(plan), who.id, who.at, JSON.stringify([...shims, ...carriers])],
  )
  return {
    kind: 'trial',
    subject: `build:${number}`,
    data: {
      number,
      stacks: [
        ...[...chosen].map(([id, pieces]) => ({ label: labelOf(sheet, id), mm: sum(pieces) })),
        ...[...turned].map(([id, t]) => ({ label: labelOf(sheet, id), ...t })),
      ],
    },
  }
}

const idsAsked = (body: TakePlan) => body.stacks.flatMap((s) => s.pieces.map((p) => p.id))

/** The drawer lines among these pieces. */
const linesOf = (pieceIds: string[]) => [
  ...new Set(pieceIds.filter((id) => id.startsWith('d')).map((id) => id.slice(1))),
]

const sum = (pieces: AvailablePiece[]) => pieces.reduce((mm, p) => mm + p.thicknessMm, 0)
const labelOf = (sheet: DriveSheet, id: string) => sheet.adjusters.find((a) => a.id === id)!.label

/**
 * Where every threaded carrier stands in the next trial: so many of its steps from where it stands now.
 * @throws InputError beyond the carrier's thread, or where a stack of shims is to be turned
 */
function turn(sheet: DriveSheet, from: JudgedBuild, body: TakePlan) {
  body.stacks.forEach((s, i) => {
    const a = sheet.adjusters.find((x) => x.id === s.location)
    if (s.steps !== undefined && a && !isCarrier(a))
      refuse(`stacks[${i}].steps`, `${a.label} is a stack of shims; only a threaded carrier is turned`)
    if (a && isCarrier(a) && s.pieces.length)
      refuse(`stacks[${i}].pieces`, `${a.label} is a threaded carrier; it takes no pieces, only steps`)
  })
  return new Map(
    sheet.adjusters.filter(isCarrier).map((a) => {
      const i = body.stacks.findIndex((s) => s.location === a.id)
      const steps = body.stacks[i]?.steps ?? 0
      const now = from.state.stacks[a.id]!
      const mm = now + steps * lockStepMm(a)
      if (mm < a.minMm - THICKNESS_SLACK_MM || mm > a.maxMm + THICKNESS_SLACK_MM) {
        const left = stepsLeft(a, now)
        refuse(
          `stacks[${i}].steps`,
          `is ${steps}: beyond the thread of ${a.label}. It has ${left.in} more in, ${left.out} out`,
        )
      }
      return [a.id, { mm, turned: turnedBetween(a, now, mm) }] as const
    }),
  )
}

/** The pieces of every stack; a stack that the request leaves out keeps what is in it. */
function choose(sheet: DriveSheet, from: JudgedBuild, available: AvailablePiece[], body: TakePlan): Chosen {
  const byId = new Map(available.map((p) => [p.id, p]))
  const asked = new Map(body.stacks.map((s, i) => [s.location, { pieces: s.pieces, path: `stacks[${i}]` }]))
  if (asked.size < body.stacks.length) refuse('stacks', 'name one stack twice')
  const stacks = shimAdjusters(sheet)
  for (const [location, { path }] of asked)
    if (
      !stacks.some((a) => a.id === location) &&
      !sheet.adjusters.some((a) => a.id === location && isCarrier(a))
    )
      refuse(`${path}.location`, `"${location}" is no stack of ${sheet.name}`)
  return new Map(
    stacks.flatMap((a): [string, ChosenPiece[]][] => {
      const request = asked.get(a.id)
      // a stack that nobody has taken out is what it is
      const wanted: TrialPiece[] | undefined =
        request?.pieces ?? from.stacks.find((s) => s.location === a.id && !s.superseded)?.pieces
      if (!wanted) return []
      return [
        [
          a.id,
          wanted.map(({ id, toMm }, k) => {
            const path = `${request?.path ?? a.id}.pieces[${k}]`
            const piece =
              byId.get(id) ?? refuse(`${path}.id`, `"${id}" is no piece of the drawer or of this case`)
            return toMm === undefined ? piece : madeThinner(piece, toMm, path)
          }),
        ],
      ]
    }),
  )
}

/** @throws InputError for a thickness that this piece cannot be brought to */
function madeThinner(piece: AvailablePiece, toMm: number, path: string): ChosenPiece {
  const thicknessMm = pieceCuts(piece).find((mm) => Math.abs(mm - toMm) < THICKNESS_SLACK_MM)
  if (thicknessMm === undefined)
    refuse(
      `${path}.toMm`,
      piece.cut
        ? `is ${toMm} mm; ${piece.label} can be brought down to ${showBoth(piece.cut.minMm, 3)} in its steps, not to that`
        : `is ${toMm} mm; ${piece.label} cannot be made thinner`,
    )
  return { ...piece, thicknessMm, thinned: true }
}

/** Each stack within the sheet's limits. Stacks that are set another way are taken as they come. */
function checkStacks(sheet: DriveSheet, chosen: Chosen) {
  const problems: FieldProblem[] = []
  for (const stack of shimAdjusters(sheet)) {
    const pieces = chosen.get(stack.id)
    const message = pieces && whatIsWrong(stack, pieces)
    if (message) problems.push({ path: `stacks.${stack.id}`, message })
  }
  if (problems.length)
    throw new Refusal(422, 'stack-impossible', problems.map((p) => p.message).join(' '), problems)
}

function whatIsWrong(stack: Adjuster, pieces: AvailablePiece[]): string | undefined {
  const mm = sum(pieces)
  if (pieces.length > stack.maxPieces)
    return `${stack.label}: ${pieces.length} pieces; the sheet allows ${stack.maxPieces}. Use fewer, thicker ones.`
  if (mm < stack.minMm - THICKNESS_SLACK_MM || mm > stack.maxMm + THICKNESS_SLACK_MM)
    return `${stack.label}: ${showBoth(mm, 3)}; the sheet allows ${stack.minMm} to ${stack.maxMm} mm.`
  return undefined
}

async function moveStock(
  tx: Transaction,
  job: { id: string; number: string },
  from: JudgedBuild,
  chosen: Chosen,
  who: Who,
) {
  const wanted = new Map<string, { piece: AvailablePiece; count: number }>()
  for (const pieces of chosen.values())
    for (const piece of pieces) wanted.set(piece.id, { piece, count: (wanted.get(piece.id)?.count ?? 0) + 1 })
  const problems: FieldProblem[] = []
  for (const { piece, count } of wanted.values())
    if (count > piece.count)
      problems.push({
        path: `pieces.${piece.id}`,
        message:
          piece.origin === 'case'
            ? `${piece.label}: that piece exists once, the stacks use it ${count} times`
            : `${showBoth(piece.thicknessMm, 3)}: ${count} wanted, ${piece.count} to be had`,
      })
  if (problems.length)
    throw new Refusal(
      409,
      'stock',
      `The drawer does not hold these stacks any more. ${problems.map((p) => p.message).join('; ')}. Nothing was taken; ask for stacks again.`,
      problems,
    )
  const before = piecesInUse(from)
  const ids = new Set([...wanted.keys(), ...before.keys()].filter((id) => id.startsWith('d')))
  const movements = [...ids].sort().flatMap((id): Movement[] => {
    const taken = (wanted.get(id)?.count ?? 0) - (before.get(id) ?? 0)
    if (taken === 0) return []
    return [
      {
        lineId: id.slice(1),
        kind: taken > 0 ? 'reserve' : 'return',
        delta: -taken,
        reason:
          taken > 0
            ? `trial ${from.number + 1} of ${job.number}`
            : `no longer in the stacks of ${job.number}`,
        jobId: job.id,
      },
    ]
  })
  if (movements.length) await moveAll(tx, movements, who)
}
