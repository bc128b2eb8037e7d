import type { Flank } from '../contact/flank.ts'
import type { Outline } from '../contact/marked.ts'
import type { ReadingHow } from '../setting/taken.ts'
import type { LoopWhy } from '../route/loops.ts'
import type { ScopeMode } from '../route/scope.ts'
import type { Grade } from '../inspection/criteria.ts'
import type {
  BuildRecord,
  Closing,
  GradeEntry,
  JobRecord,
  PatternMark,
  ReadingEntry,
  RowPart,
  StackEntry,
  StackPiece,
  Superseded,
} from './record.ts'

/**
 * A record as it is read from the store and goes over the wire. What stands in a job by the dozen (closings, parts in the row, grades,
 * stacks, readings) is a list of values in a fixed order; people and gauges are named once; times are milliseconds since 1970; what is not
 * there is left out. A job is a third as long as in full. {@link fullRecord} puts it back.
 */
type Ms = number
/** Id of a person; `people` has the names. */
type By = string
type Gone = [reason: string, by: By, at: Ms]

export type CompactPiece = [id: string, thicknessMm: number, text: string, thinned?: 1]
export type CompactStack = [
  id: number,
  location: string,
  by: By,
  at: Ms,
  pieces: CompactPiece[] | null,
  superseded: Gone | null,
  /** Of a carrier: how far it is turned in. */
  turnedMm?: number | null,
]
export type CompactReading = [
  id: number,
  measure: string,
  raw: number,
  /** null: read directly. */
  value: number | null,
  text: string,
  unit: string,
  gaugeId: string,
  /** 1: it was past its calibration date. */
  overdue: 0 | 1 | null,
  resolution: number,
  mpe: number,
  repeatability: number,
  by: By,
  at: Ms,
  more: {
    masterMm?: number
    clockDeg?: number
    how?: ReadingHow
    note?: string
    superseded?: [...Gone, replacedBy: number | null]
  } | null,
]
export interface CompactBuild {
  id: number
  number: number
  by: By
  at: Ms
  plan?: { predicted: NonNullable<BuildRecord['plan']>['predicted']; probability?: number }
  acceptance?: [reason: string | null, by: By, at: Ms, signed?: 1]
  stacks?: CompactStack[]
  readings?: CompactReading[]
  patterns?: CompactMark[]
}
export type CompactMark = [
  id: number,
  mesh: string,
  flank: Flank,
  place: number,
  outline: Outline,
  note: string | null,
  by: By,
  at: Ms,
  superseded: Gone | null,
]
export type CompactClosing = [
  id: number,
  step: string,
  by: By,
  at: Ms,
  answers: Closing['answers'],
  more: {
    texts?: Closing['texts']
    departedFrom?: string[]
    reason?: string
    lead?: By
    takenBack?: [...Gone, replacedBy: number | null]
  } | null,
]
export type CompactRowPart = [
  id: number,
  part: string | null,
  name: string,
  orientation: string | null,
  offBy: By,
  offAt: Ms,
  fittedBy: By | null,
  fittedAt: Ms | null,
  more: { ink?: string; stack?: string; note?: string; leftOut?: string; renewed?: true } | null,
]
export type CompactGrade = [
  id: number,
  part: string,
  grade: Grade,
  reason: string,
  seen: string[] | null,
  measuredMm: number | null,
  /** null: nothing was proposed; '=' the grade itself. */
  proposed: Grade | '=' | null,
  by: By,
  at: Ms,
]

export type CompactScope = [
  usual: string,
  mode: ScopeMode,
  targets: string[],
  mounted: boolean,
  reason: string,
  by: By,
  at: Ms,
]
export type CompactOpenItem = [
  id: number,
  text: string,
  by: By,
  at: Ms,
  closed: [how: string, by: By, at: Ms] | null,
]
export type CompactLoop = [number: number, why: LoopWhy, targets: string[], note: string, by: By, at: Ms]

type Whole =
  | 'id'
  | 'number'
  | 'serial'
  | 'boat'
  | 'owner'
  | 'water'
  | 'state'
  | 'stage'
  | 'waits'
  | 'complaint'
  | 'openedAt'
  | 'touchedAt'
  | 'sheetId'
  | 'sheetVersion'
  | 'newestSheetVersion'
  | 'seen'
type Lists = 'builds' | 'closings' | 'row' | 'grades' | 'scopes' | 'openItems' | 'loops'
export type CompactRecord = Pick<JobRecord, Whole> &
  Partial<Omit<JobRecord, Whole | Lists>> & {
    people: Record<By, string>
    /** Names of the gauges that were used. */
    gauges?: Record<string, string>
    builds: CompactBuild[]
    closings?: CompactClosing[]
    row?: CompactRowPart[]
    grades?: CompactGrade[]
    scopes?: CompactScope[]
    openItems?: CompactOpenItem[]
    loops?: CompactLoop[]
  }

const iso = (at: Ms) => new Date(at).toISOString()

/** The record with everything in its place again. */
export function fullRecord({ people, gauges, ...c }: CompactRecord): JobRecord {
  const name = (by: By) => people[by] ?? by
  const gone = (g: Gone | null): Superseded | null => g && { reason: g[0], by: name(g[1]), at: iso(g[2]) }

  const stack = ([id, location, by, at, pieces, superseded, turnedMm]: CompactStack): StackEntry => {
    const own = (pieces ?? []).map(([piece, thicknessMm, text, thinned]): StackPiece => ({
      id: piece,
      thicknessMm,
      text,
      origin: piece.startsWith('d') ? 'drawer' : 'case',
      ...(thinned ? { thinned: true } : {}),
    }))
    return {
      id,
      location,
      thicknessMm: turnedMm ?? own.reduce((sum, p) => sum + p.thicknessMm, 0),
      pieces: own,
      by: name(by),
      at: iso(at),
      superseded: gone(superseded),
    }
  }
  const mark = ([id, mesh, flank, place, outline, note, by, at, superseded]: CompactMark): PatternMark => ({
    id,
    mesh,
    flank,
    place,
    outline,
    note,
    by: name(by),
    at: iso(at),
    superseded: gone(superseded),
  })
  const reading = (r: CompactReading): ReadingEntry => {
    const [id, measure, raw, value, text, unit, gaugeId, overdue, resolution, mpe, repeatability] = r
    const [, , , , , , , , , , , by, at, more] = r
    const { superseded } = more ?? {}
    return {
      id,
      measure,
      raw,
      value: value ?? raw,
      text,
      unit,
      gaugeId,
      gaugeName: gauges?.[gaugeId] ?? gaugeId,
      gaugeOverdue: overdue === null ? null : overdue === 1,
      gauge: { resolution, mpe, repeatability },
      masterMm: more?.masterMm ?? null,
      clockDeg: more?.clockDeg ?? null,
      how: more?.how ?? null,
      note: more?.note ?? null,
      by: name(by),
      at: iso(at),
      superseded: superseded
        ? {
            reason: superseded[0],
            by: name(superseded[1]),
            at: iso(superseded[2]),
            replacedBy: superseded[3],
          }
        : null,
    }
  }
  const newestGrade = new Map((c.grades ?? []).map(([id, part]) => [part, id]))
  return {
    ...c,
    hours: c.hours ?? null,
    stand: c.stand ?? null,
    heldReason: c.heldReason ?? null,
    routeHash: c.routeHash ?? null,
    builds: c.builds.map((b) => ({
      id: b.id,
      number: b.number,
      by: name(b.by),
      at: iso(b.at),
      stacks: (b.stacks ?? []).map(stack),
      readings: (b.readings ?? []).map(reading),
      patterns: (b.patterns ?? []).map(mark),
      plan: b.plan ? { predicted: b.plan.predicted, probability: b.plan.probability ?? null } : null,
      acceptance: b.acceptance
        ? {
            reason: b.acceptance[0],
            by: name(b.acceptance[1]),
            at: iso(b.acceptance[2]),
            signed: b.acceptance[3] === 1,
          }
        : null,
    })),
    closings: (c.closings ?? []).map((s) => fullClosing(s, people)),
    drafts: c.drafts ?? [],
    row: (c.row ?? []).map(
      ([id, part, partName, orientation, offBy, offAt, fittedBy, fittedAt, more]): RowPart => ({
        id,
        part,
        name: partName,
        orientation,
        ink: more?.ink ?? null,
        stack: more?.stack ?? null,
        note: more?.note ?? null,
        offBy: name(offBy),
        offAt: iso(offAt),
        fitted:
          fittedBy !== null && fittedAt !== null
            ? { by: name(fittedBy), at: iso(fittedAt), renewed: more?.renewed === true }
            : null,
        leftOut: more?.leftOut ?? null,
      }),
    ),
    grades: (c.grades ?? []).map(
      ([id, part, grade, reason, seen, measuredMm, proposed, by, at]): GradeEntry => ({
        id,
        part,
        grade,
        reason,
        seen: seen ?? [],
        measuredMm,
        proposed: proposed === '=' ? grade : proposed,
        by: name(by),
        at: iso(at),
        superseded: newestGrade.get(part) !== id,
      }),
    ),
    findings: c.findings ?? [],
    outcome: c.outcome ? { ...c.outcome, note: c.outcome.note ?? null } : null,
    estimates: (c.estimates ?? []).map((e) => ({ ...e, approval: e.approval ?? null })),
    schools: c.schools ?? [],
    attachments: (c.attachments ?? []).map((a) => ({ ...a, note: a.note ?? null })),
    scopes: (c.scopes ?? []).map(([usual, mode, targets, mounted, reason, by, at]) => ({
      usual,
      mode,
      targets,
      mounted,
      reason,
      by: name(by),
      at: iso(at),
    })),
    openItems: (c.openItems ?? []).map(([id, text, by, at, closed]) => ({
      id,
      text,
      by: name(by),
      at: iso(at),
      closed: closed && { how: closed[0], by: name(closed[1]), at: iso(closed[2]) },
    })),
    loops: (c.loops ?? []).map(([number, why, targets, note, by, at]) => ({
      number,
      why,
      targets,
      note,
      by: name(by),
      at: iso(at),
    })),
    partner: c.partner ?? null,
  }
}

/** One closing in full. @param people names by id */
export function fullClosing(
  [id, step, by, at, answers, more]: CompactClosing,
  people: Record<By, string>,
): Closing {
  const name = (p: By) => people[p] ?? p
  const { texts = {}, departedFrom = [], reason = null, lead, takenBack } = more ?? {}
  return {
    id,
    step,
    answers,
    texts,
    departedFrom,
    reason,
    lead: lead === undefined ? null : name(lead),
    by: name(by),
    at: iso(at),
    takenBack:
      takenBack === undefined
        ? null
        : {
            reason: takenBack[0],
            by: name(takenBack[1]),
            at: iso(takenBack[2]),
            replacedBy: takenBack[3] ?? null,
          },
  }
}
