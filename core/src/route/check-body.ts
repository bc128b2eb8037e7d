import { InputError, type FieldProblem } from '../checks/input-error.ts'
import { pushedByTurning } from '../gears/flank.ts'
import { gearFromMeasures } from '../gears/gear-from-measures.ts'
import { checkRoute } from './check-route.ts'
import { OUTSIDE_FACTS } from './job-facts.ts'
import { routeOf } from './route-of.ts'
import { checkSheet } from '../drives/check-sheet.ts'
import { FAMILIES } from '../drives/sheet.ts'
import { figureAt, type SheetBody } from '../drives/own/body.ts'
import { depthMeantByFeeler } from '../drives/own/feeler-window.ts'
import { figureFields, touches } from '../drives/own/figures.ts'
import { toothFigure } from '../drives/own/geometry.ts'
import { checkGraph } from '../drives/graph/check-graph.ts'
import { GRAPH_LISTS } from '../drives/graph/rows.ts'
import { filled } from '../drives/own/fill.ts'
import { settingsOf } from '../drives/own/settings-of.ts'
import { ofVariant } from '../drives/own/variants.ts'
import { figureProblem } from '../drives/own/read-figure.ts'

export interface BodyFindings {
  /** What cannot be; such a sheet is not published, and no job opens on it. */
  wrong: FieldProblem[]
  /** What can be, and is worth a second look. */
  doubtful: FieldProblem[]
}

/**
 * What is wrong or doubtful in a sheet as far as it is filled: figures outside of what can be, windows upside down, names that lead nowhere,
 * parts that hold one another, rules that contradict the direction of their stack, diameters that disagree about the module. What is missing is
 * no fault (readiness says what it would unlock).
 */
export function checkBody(body: SheetBody): BodyFindings {
  // what leads nowhere cannot be laid out: nothing else can be said of such a sheet
  const lost = leadingNowhere(body)
  if (lost.length) return { wrong: lost, doubtful: [] }
  const wrong: FieldProblem[] = []
  const doubtful: FieldProblem[] = []
  for (const f of figureFields(body)) {
    const value = figureAt(body, f.path)
    const problem = value === undefined ? undefined : figureProblem(f, value)
    if (problem) wrong.push({ path: f.path, message: `${f.label} ${problem}` })
  }
  rules(body, wrong)
  const graph = checkGraph(body, settingsOf(body))
  wrong.push(...graph.wrong)
  doubtful.push(...graph.doubtful)
  modules(body, wrong, doubtful)
  flanks(body, wrong)
  feelers(body, wrong)
  pressures(body, wrong)
  for (const [i, v] of (body.variants ?? []).entries()) {
    const at = `variants[${i}]`
    if (body.variants!.some((x, k) => k < i && x.id === v.id))
      wrong.push({ path: `${at}.id`, message: `"${v.id}" is used twice` })
    if (isShaped(ofVariant(body, v)))
      wrong.push(
        ...checkBody(ofVariant(body, v)).wrong.map((w) => ({
          path: `${at}.patch.${w.path}`,
          message: `${v.label}: ${w.message}`,
        })),
      )
    else wrong.push({ path: `${at}.patch`, message: `${v.label}: takes away a list that every sheet has` })
  }
  if (!wrong.length) {
    const known = new Set(wrong.map((w) => w.path))
    wrong.push(...hangsTogether(body).filter((p) => !known.has(p.path)))
  }
  return { wrong, doubtful }
}

const LISTS = ['axes', 'gears', 'meshes', 'adjusters', 'bearings', 'seals', 'measures', 'parts'] as const
/** A patch can make anything of a sheet: what is no sheet any more is not looked into. */
const isShaped = (body: SheetBody): boolean =>
  LISTS.every((l) => Array.isArray(body[l])) &&
  GRAPH_LISTS.every((l) => body[l] === undefined || Array.isArray(body[l])) &&
  body.family in FAMILIES

/** Names of shafts, gears and pairs that the body does not have, and names that stand twice. */
function leadingNowhere(body: SheetBody): FieldProblem[] {
  const problems: FieldProblem[] = []
  const names = (list: 'axes' | 'gears' | 'meshes') => {
    const known = new Set<string>()
    body[list].forEach(({ id }, i) => {
      if (known.has(id)) problems.push({ path: `${list}[${i}].id`, message: `"${id}" is used twice` })
      known.add(id)
    })
    return known
  }
  const [axes, gears, meshes] = [names('axes'), names('gears'), names('meshes')]
  const refer = (path: string, id: string | undefined, known: Set<string>) => {
    if (id !== undefined && !known.has(id))
      problems.push({
        path,
        message: `"${id}" does not exist; known are ${[...known].join(', ') || 'none'}`,
      })
  }
  body.axes.forEach((a, i) => {
    refer(`axes[${i}].insideOf`, a.insideOf, axes)
    let around = a.insideOf
    for (let n = 0; around !== undefined && around !== a.id && n < body.axes.length; n++)
      around = body.axes.find((x) => x.id === around)?.insideOf
    if (around === a.id)
      problems.push({ path: `axes[${i}].insideOf`, message: `"${a.id}" cannot run inside of itself` })
  })
  body.gears.forEach((g, i) => refer(`gears[${i}].axis`, g.axis, axes))
  body.meshes.forEach((m, i) => {
    refer(`meshes[${i}].pinion`, m.pinion, gears)
    refer(`meshes[${i}].gear`, m.gear, gears)
  })
  for (const list of ['adjusters', 'bearings', 'seals'] as const)
    body[list].forEach((r, i) => refer(`${list}[${i}].axis`, r.axis, axes))
  body.adjusters.forEach((a, i) => refer(`adjusters[${i}].moves`, a.moves, gears))
  const adjusters = new Set(body.adjusters.map((a) => a.id))
  body.bearings.forEach((b, i) => refer(`bearings[${i}].setting.by`, b.setting?.by, adjusters))
  body.belts?.forEach((b, i) =>
    b.pulleys.forEach((p, k) => refer(`belts[${i}].pulleys[${k}].axis`, p.axis, axes)),
  )
  body.measures.forEach((m, i) => {
    const at = `measures[${i}]`
    if (m.kind === 'depth') refer(`${at}.gear`, m.gear ?? 'none', gears)
    if (m.kind === 'backlash') refer(`${at}.mesh`, m.mesh ?? 'none', meshes)
    if (m.kind === 'end-play') refer(`${at}.axis`, m.axis ?? 'none', axes)
  })
  return problems
}

/** The sheet's own check, and that of the route that follows from it. */
function hangsTogether(body: SheetBody): FieldProblem[] {
  try {
    const sheet = filled(body)
    checkSheet(sheet)
    checkRoute(routeOf(sheet), OUTSIDE_FACTS)
    return []
  } catch (e) {
    if (!(e instanceof InputError)) throw e
    return e.fields
  }
}

/** A stack that pushes its gear into the mesh takes backlash away, and a rule that says the opposite is another stack's, or upside down. */
function rules(body: SheetBody, wrong: FieldProblem[]) {
  for (const a of body.adjusters)
    for (const [measure, rule] of Object.entries(a.rules ?? {})) {
      const m = body.measures.find((x) => x.id === measure)
      if (m?.kind !== 'backlash' || !a.moves || !a.effect || !touches(body, m.mesh, a.moves)) continue
      if (rule === 0)
        wrong.push({
          path: `adjusters.${a.id}.rules.${measure}`,
          message: `${a.label}: a rule of 0 says that the stack changes nothing; leave it out`,
        })
      else if (Math.sign(rule) !== a.effect)
        wrong.push({
          path: `adjusters.${a.id}.rules.${measure}`,
          message: `${a.label}: thicker pushes the gear ${a.effect > 0 ? 'away from' : 'into'} the mesh, which gives ${a.effect > 0 ? 'more' : 'less'} backlash; the rule says ${rule > 0 ? 'more' : 'less'}. One of the two is upside down`,
        })
    }
}

/** A window of the depth that can only be the feeler's: every reading would stand outside of it. */
function feelers(body: SheetBody, wrong: FieldProblem[]) {
  for (const m of body.measures)
    if (depthMeantByFeeler(m))
      wrong.push({
        path: `measures.${m.id}.window`,
        message: `${m.label}: this lies near the clearance of the feeler and far from the nominal depth. Type the limits of the depth, from the middle of the gear shaft`,
      })
}

/** The flank that somebody saw pushed, and the one that hand and turning push, are the same one. */
function flanks(body: SheetBody, wrong: FieldProblem[]) {
  for (const m of body.meshes) {
    const turning = pushedByTurning(m)
    if (m.pushed && turning && m.pushed !== turning)
      wrong.push({
        path: `meshes.${m.id}.pushed`,
        message: `${m.label}: a ${m.pinionHand}-hand pinion that turns ${m.pinionTurns} pushes the ${turning} flank of its gear, not the ${m.pushed} one. Look once more which of the three is right`,
      })
  }
}

function modules(body: SheetBody, wrong: FieldProblem[], doubtful: FieldProblem[]) {
  for (const m of body.meshes) {
    if (m.mesh) continue
    const [pinion, gear] = [m.pinion, m.gear].map((id) => body.gears.find((g) => g.id === id))
    const form = toothFigure(body, m, 'form')
    if (!pinion?.teeth || !gear?.teeth || !form) continue
    if (pinion.outsideMm === undefined && gear.outsideMm === undefined) continue
    try {
      const found = gearFromMeasures({
        pinionTeeth: pinion.teeth,
        gearTeeth: gear.teeth,
        form,
        ...(gear.outsideMm === undefined ? {} : { gearOutsideMm: gear.outsideMm }),
        ...(pinion.outsideMm === undefined ? {} : { pinionOutsideMm: pinion.outsideMm }),
      })
      if (found.agree === false)
        doubtful.push({
          path: `gears.${gear.id}.outsideMm`,
          message: `${m.label}: the two outside diameters do not make the same module. Teeth of unusual proportions, or miscounted`,
        })
      const cone = (found.moduleMm * Math.hypot(pinion.teeth, gear.teeth)) / 2
      if (m.faceWidthMm !== undefined && m.faceWidthMm >= cone)
        wrong.push({
          path: `meshes.${m.id}.faceWidthMm`,
          message: `${m.label}: a face of ${m.faceWidthMm.toFixed(1)} mm is longer than the cone of these gears, ${cone.toFixed(1)} mm`,
        })
    } catch (e) {
      if (!(e instanceof InputError)) throw e
      doubtful.push(...e.fields.map((f) => ({ path: `gears.${gear.id}.outsideMm`, message: f.message })))
    }
  }
}

function pressures(body: SheetBody, wrong: FieldProblem[]) {
  for (const { id, workKpa, maxKpa } of body.tests ?? [])
    if (workKpa !== undefined && maxKpa !== undefined && workKpa >= maxKpa)
      wrong.push({
        path: `tests.${id}.maxKpa`,
        message: `Never above ${maxKpa} kPa, and tested at ${workKpa} kPa: the highest pressure lies above the one of the test`,
      })
}
