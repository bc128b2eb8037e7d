import { caseTest, joinedTest } from './graph/unit-facts.ts'
import { InputError, type FieldProblem } from '../checks/input-error.ts'
import { checkMesh } from '../gears/mesh.ts'
import { checkWindow, type Window } from '../checks/window.ts'
import type { DriveSheet } from './sheet.ts'

/**
 * Checks that a sheet hangs together: every name it refers to exists, windows are the right way up,
 * targets lie inside, teeth of gears and meshes agree, stacks are possible.
 * @throws InputError with every problem found
 */
export function checkSheet(sheet: DriveSheet): void {
  const problems: FieldProblem[] = []
  const say = (path: string, message: string) => problems.push({ path, message })
  const attempt = (path: string, check: () => void) => {
    try {
      check()
    } catch (e) {
      if (!(e instanceof InputError)) throw e
      problems.push(
        ...e.fields.map((f) => ({ ...f, path: f.path.startsWith(path) ? f.path : `${path}.${f.path}` })),
      )
    }
  }
  const ids = (rows: { id: string }[], path: string) => {
    const seen = new Set<string>()
    rows.forEach((r, i) => {
      if (seen.has(r.id)) say(`${path}[${i}].id`, `"${r.id}" is used twice`)
      seen.add(r.id)
    })
    return seen
  }
  const axes = ids(sheet.axes, 'axes')
  const gears = ids(sheet.gears, 'gears')
  const meshes = ids(sheet.meshes, 'meshes')
  const refer = (path: string, id: string | undefined, known: Set<string>) => {
    if (id !== undefined && !known.has(id))
      say(path, `"${id}" does not exist; known are ${[...known].join(', ') || 'none'}`)
  }

  sheet.axes.forEach((a, i) => {
    refer(`axes[${i}].insideOf`, a.insideOf, axes)
    if (a.fromMm >= a.toMm) say(`axes[${i}]`, `runs backwards from ${a.fromMm} to ${a.toMm} mm`)
  })
  sheet.gears.forEach((g, i) => refer(`gears[${i}].axis`, g.axis, axes))
  sheet.meshes.forEach((m, i) => {
    const at = `meshes[${i}]`
    refer(`${at}.pinion`, m.pinion, gears)
    refer(`${at}.gear`, m.gear, gears)
    attempt(`${at}.mesh`, () => checkMesh(m.mesh, `${at}.mesh`))
    const teeth = (id: string) => sheet.gears.find((g) => g.id === id)?.teeth
    if (teeth(m.pinion) !== m.mesh.pinionTeeth)
      say(`${at}.mesh.pinionTeeth`, `is ${m.mesh.pinionTeeth}, but gear "${m.pinion}" has ${teeth(m.pinion)}`)
    if (teeth(m.gear) !== m.mesh.gearTeeth)
      say(`${at}.mesh.gearTeeth`, `is ${m.mesh.gearTeeth}, but gear "${m.gear}" has ${teeth(m.gear)}`)
  })
  const measures = ids(sheet.measures, 'measures')
  ids(sheet.adjusters, 'adjusters')
  sheet.adjusters.forEach((a, i) => {
    const at = `adjusters[${i}]`
    refer(`${at}.axis`, a.axis, axes)
    refer(`${at}.moves`, a.moves, gears)
    for (const id of Object.keys(a.rules ?? {})) refer(`${at}.rules`, id, measures)
    if (a.minMm > a.maxMm) say(at, `cannot be: smallest ${a.minMm} mm above largest ${a.maxMm} mm`)
    if (a.startMm < a.minMm || a.startMm > a.maxMm)
      say(`${at}.startMm`, `is ${a.startMm}; allowed is ${a.minMm} to ${a.maxMm} mm`)
  })
  const adjusters = new Set(sheet.adjusters.map((a) => a.id))
  sheet.bearings.forEach((b, i) => {
    refer(`bearings[${i}].axis`, b.axis, axes)
    if (b.setting?.by !== undefined) refer(`bearings[${i}].setting.by`, b.setting.by, adjusters)
  })
  sheet.seals.forEach((s, i) => refer(`seals[${i}].axis`, s.axis, axes))
  sheet.belts?.forEach((b, i) =>
    b.pulleys.forEach((p, k) => refer(`belts[${i}].pulleys[${k}].axis`, p.axis, axes)),
  )
  sheet.measures.forEach((m, i) => {
    const at = `measures[${i}]`
    // a window that nobody has typed yet is none; one with limits has to be the right way up
    if (Object.keys(m.window).length) attempt(at, () => checkWindow(`${at}.window`, m.window))
    if (m.target !== undefined && !inside(m.target, m.window))
      say(`${at}.target`, `is ${m.target}, outside its window`)
    if (!(Number.isInteger(m.readings) && m.readings >= 1))
      say(`${at}.readings`, `is ${m.readings}; at least one reading`)
    if (m.kind === 'depth') refer(`${at}.gear`, m.gear, gears)
    if (m.kind === 'backlash') refer(`${at}.mesh`, m.mesh, meshes)
    if (m.kind === 'end-play') refer(`${at}.axis`, m.axis, axes)
  })
  checkParts(sheet, say, refer)
  if (problems.length) throw new InputError('bad-sheet', problems)
}

/** Every part can come off at some time, lies where the drawing has a place, and costs what its set or kit costs. */
function checkParts(
  sheet: DriveSheet,
  say: (path: string, message: string) => void,
  refer: (path: string, id: string | undefined, known: Set<string>) => void,
) {
  const known = new Set(sheet.parts.map((p) => p.id))
  if (known.size < sheet.parts.length) say('parts', 'holds an id twice')
  const places = new Set([
    ...sheet.gears.map((g) => `gear:${g.id}`),
    ...sheet.bearings.map((b) => `bearing:${b.id}`),
    ...sheet.seals.map((s) => `seal:${s.id}`),
    ...sheet.adjusters.map((a) => `stack:${a.id}`),
  ])
  const price = new Map<string, number>()
  sheet.parts.forEach((p, i) => {
    const at = `parts[${i}]`
    for (const a of p.after) refer(`${at}.after`, a, known)
    refer(`${at}.place`, p.place, places)
    if (p.price === undefined) return
    if (!(p.price >= 0)) say(`${at}.price`, `is ${p.price}; it must not be below 0`)
    const together = p.set ?? p.kit
    if (together === undefined) return
    const first = price.get(together)
    if (first !== undefined && first !== p.price)
      say(`${at}.price`, `is ${p.price}, but "${together}" costs ${first}`)
    price.set(together, p.price)
  })
  const off = new Set<string>()
  for (let more = true; more;) {
    more = false
    for (const p of sheet.parts)
      if (!off.has(p.id) && p.after.every((a) => off.has(a))) {
        off.add(p.id)
        more = true
      }
  }
  const stuck = sheet.parts.filter((p) => !off.has(p.id))
  if (stuck.length) say('parts', `can never come off: ${stuck.map((p) => p.id).join(', ')}`)
  const plans = { 'tests.case': caseTest(sheet.graph), 'tests.joined': joinedTest(sheet.graph) }
  for (const [at, plan] of Object.entries(plans)) {
    if (!plan) continue
    const { lowKpa, workKpa, maxKpa, holdMin, volumeMl, allowedMlPerMin, allowedDrop } = plan
    if (!(lowKpa < workKpa && workKpa < maxKpa))
      say(at, `pressures must rise: ${lowKpa}, ${workKpa}, ${maxKpa} kPa`)
    for (const [name, value] of Object.entries({
      holdMin,
      volumeMl,
      allowedMlPerMin,
      minutes: allowedDrop?.minutes,
    }))
      if (value !== undefined && !(value > 0)) say(`${at}.${name}`, `is ${value}; it must be above 0`)
    if (allowedDrop && !(allowedDrop.kpa >= 0))
      say(`${at}.allowedDrop.kpa`, `is ${allowedDrop.kpa}; 0 is no drop, and less there is not`)
    if (allowedDrop?.minutes !== undefined && allowedDrop.minutes > holdMin)
      say(`${at}.allowedDrop.minutes`, `is ${allowedDrop.minutes}; the test is held for ${holdMin} min`)
  }
}

function inside(value: number, window: Window): boolean {
  return value >= (window.min ?? -Infinity) && value <= (window.max ?? Infinity)
}
