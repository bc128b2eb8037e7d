import type { StackEntry } from '@moray/core/job/record'
import type { ShownBuild, ShownJob } from './shown-job.ts'
import type { Adjuster, DriveSheet } from '@moray/core/drives/sheet'
import { settingMeasures, unitOf, type SetMeasure } from '@moray/core/setting/measures'
import { runoutMeasures, type RunoutMeasure } from '@moray/core/setting/shaft-stations'
import { isCarrier, settableAdjusters } from '@moray/core/drives/sheet'
import { turnedBetween, turnedText } from '@moray/core/setting/turned'
import type { Prediction } from '@moray/core/setting/shim-solve'
import type { useUnits } from '../ui/units.ts'
import type { DrawingTag } from '../drawing/SectionDrawing.vue'

/** Decimals at which a measure is shown: depth to the micrometre's neighbourhood, backlash to the hundredth. */
export const decimalsOf = (m: SetMeasure): number => (m.kind === 'depth' ? 3 : 2)

/** The entry of a stack that counts. */
export function stackOf(build: ShownBuild, location: string): StackEntry | undefined {
  return build.stacks.find((s) => s.location === location && !s.superseded)
}

/** What is built in: stacks in mm, carriers by how far they are turned in, mm. */
export const stackThicknesses = (build: ShownBuild): Record<string, number> => build.state.stacks

/** What is set there, as it is read: a stack in the person's unit, a carrier in notches from where it was found. */
export function setText(
  a: Adjuster,
  mm: number | undefined,
  units: Pick<ReturnType<typeof useUnits>, 'digits'>,
): string {
  if (mm === undefined) return '—'
  if (!isCarrier(a)) return units.digits(mm, 3)
  const { steps, perTurn, free } = turnedBetween(a, a.startMm, mm)
  const n = free ? `${Math.round((3600 * Math.abs(steps)) / perTurn) / 10}°` : Math.abs(steps)
  return steps === 0 ? 'as found' : `${n} ${steps > 0 ? 'in' : 'out'}`
}

export const buildName = (build: Pick<ShownBuild, 'number'>): string =>
  build.number === 0 ? 'As found' : `Trial ${build.number}`

/** What a build is shown by: what it is asked, and what was read besides. */
export const shownMeasures = (
  sheet: DriveSheet,
  build: Pick<ShownBuild, 'asked' | 'assessment'>,
): SetMeasure[] =>
  settingMeasures(sheet).filter(
    (m) => build.asked.includes(m) || build.assessment.measures[m.id]?.judgement !== undefined,
  )

/** Numbers on the drawing, each at its place: stacks as they are (or as planned), measures as read (or as predicted). */
export function drawingTags(
  job: ShownJob,
  build: ShownBuild,
  units: Pick<ReturnType<typeof useUnits>, 'digits' | 'other' | 'of'>,
  plan?: { stacks: Record<string, number>; predicted: Record<string, Prediction> },
): DrawingTag[] {
  const stacks = settableAdjusters(job.sheet).map((a): DrawingTag => {
    const mm = plan?.stacks[a.id] ?? build.state.stacks[a.id]
    const below =
      mm === undefined
        ? undefined
        : isCarrier(a)
          ? mm === a.startMm
            ? undefined
            : turnedText(turnedBetween(a, a.startMm, mm))
          : units.other(mm, 3)
    return {
      id: `stack:${a.id}`,
      name: a.label,
      value: setText(a, mm, units),
      ...(below === undefined ? {} : { below }),
    }
  })
  const measures = shownMeasures(job.sheet, build).map((m): DrawingTag => {
    const predicted = plan?.predicted[m.id]
    const show = units.of(unitOf(m))
    if (predicted)
      return {
        id: `measure:${m.id}`,
        name: m.label,
        value: show.digits(predicted.value, decimalsOf(m)),
        below: `planned · ${show.other(predicted.value, decimalsOf(m))}`,
      }
    const judgement = build.assessment.measures[m.id]?.judgement
    return {
      id: `measure:${m.id}`,
      name: m.label,
      value: judgement ? show.digits(judgement.mean, decimalsOf(m)) : '—',
      ...(judgement ? { below: show.other(judgement.mean, decimalsOf(m)), verdict: judgement.verdict } : {}),
    }
  })
  return [...stacks, ...measures]
}

/** What the technician does at a place of the setting page. */
export type Focus =
  | { kind: 'stack'; stack: Adjuster }
  | { kind: 'measure'; measure: SetMeasure }
  /** Runout of a shaft, at one of its stations. */
  | { kind: 'shaft'; station: RunoutMeasure }
  | { kind: 'decide' }

export const focusId = (f: Focus): string =>
  f.kind === 'stack'
    ? `stack:${f.stack.id}`
    : f.kind === 'measure'
      ? `measure:${f.measure.id}`
      : f.kind === 'shaft'
        ? f.station.id
        : 'decide'

/** The place named in the address, if this drive has it. */
export function focusFrom(sheet: DriveSheet, id: string): Focus | undefined {
  if (id === 'decide') return { kind: 'decide' }
  const [kind, ...rest] = id.split(':')
  const name = rest.join(':')
  if (kind === 'stack') {
    const stack = settableAdjusters(sheet).find((a) => a.id === name)
    return stack && { kind: 'stack', stack }
  }
  const station = runoutMeasures(sheet).find((m) => m.id === id)
  if (station) return { kind: 'shaft', station }
  // what sets a bearing is shown at the bearing
  const asked = kind === 'bearing' ? id : name
  const measure = kind === 'stack' ? undefined : settingMeasures(sheet).find((m) => m.id === asked)
  return measure && { kind: 'measure', measure }
}

/**
 * What is due now in this build, as a place. Whoever is reading gauges goes on reading before he is sent back to a stack, and the other way
 * round: what is typed next is of the kind that was typed last.
 */
export function dueFocus(sheet: DriveSheet, build: ShownBuild, after?: Focus): Focus {
  // what was accepted takes no more readings
  if (build.acceptance) return { kind: 'decide' }
  const { due } = build.assessment
  const kind = after?.kind === 'measure' ? 'reading' : after?.kind === 'stack' ? 'stack' : undefined
  const next = due.find((d) => d.kind === kind) ?? due[0]
  const focus =
    next && next.kind !== 'decide'
      ? focusFrom(sheet, next.kind === 'stack' ? `stack:${next.stack}` : `measure:${next.measure}`)
      : undefined
  return focus ?? { kind: 'decide' }
}
