import { InputError, type FieldProblem } from '../checks/input-error.ts'
import { checkMesh } from '../gears/mesh.ts'
import { checkWindow, type Window } from '../measuring/window.ts'
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
  sheet.bearings.forEach((b, i) => refer(`bearings[${i}].axis`, b.axis, axes))
  sheet.seals.forEach((s, i) => refer(`seals[${i}].axis`, s.axis, axes))
  sheet.belts?.forEach((b, i) =>
    b.pulleys.forEach((p, k) => refer(`belts[${i}].pulleys[${k}].axis`, p.axis, axes)),
  )
  sheet.measures.forEach((m, i) => {
    const at = `measures[${i}]`
    attempt(at, () => checkWindow(`${at}.window`, m.window))
    if (m.target !== undefined && !inside(m.target, m.window))
      say(`${at}.target`, `is ${m.target}, outside its window`)
    if (!(Number.isInteger(m.readings) && m.readings >= 1))
      say(`${at}.readings`, `is ${m.readings}; at least one reading`)
    if (m.kind === 'depth') refer(`${at}.gear`, m.gear, gears)
    if (m.kind === 'backlash') refer(`${at}.mesh`, m.mesh, meshes)
    if (m.kind === 'end-play') refer(`${at}.axis`, m.axis, axes)
  })
  if (problems.length) throw new InputError('bad-sheet', problems)
}

function inside(value: number, window: Window): boolean {
  return value >= (window.min ?? -Infinity) && value <= (window.max ?? Infinity)
}
