import { contactTeeth, knownFrom, pairStands, USUAL_CROWN } from '@moray/core/contact/as-set'
import { FLANKS, sideOf } from '@moray/core/gears/flank'
import { contactSolver, patchLine } from '@moray/core/contact/tooth-contact'
import type { JudgedJob } from '@moray/core/job/judged'
import type { MarkPattern } from '@moray/contract/requests/setting'

/** How far the patch wanders along the flank at each place round the gear: its runout. */
const WANDER = [0, 0.04, -0.03]
const POINTS = 24

/** The patches of every pair as a hand would draw round them where the gauges say that the gears stand. */
export function patternMarks({ sheet, builds }: JudgedJob): MarkPattern[] {
  const build = builds.at(-1)!
  return sheet.meshes.flatMap((pair) => {
    const stands = pairStands(sheet, pair, knownFrom(build.assessment))
    if (!stands) return []
    const teeth = contactTeeth(pair)
    return FLANKS.flatMap((flank) => {
      const patch = patchLine(
        contactSolver(teeth.mesh, sideOf(flank, teeth)),
        { ...stands, offsetMm: 0, shaftAngleErrorDeg: 0 },
        USUAL_CROWN,
      )
      if (!patch) return []
      const every = Math.ceil(patch.outline.length / POINTS)
      const line = patch.outline.filter((_, i) => i % every === 0)
      return WANDER.map((along, i): MarkPattern => ({
        build: build.number,
        mesh: pair.id,
        flank,
        place: i + 1,
        outline: line.flatMap(([x, y]) => [Math.max(-1, Math.min(1, x + along)), y]),
      }))
    })
  })
}
