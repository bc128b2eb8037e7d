import type { Gauge } from '@moray/contract/replies'
import type { FieldProblem } from '@moray/core/checks/input-error'
import type { SheetBody } from '@moray/core/drives/own/body'
import { kindOfGauge } from '@moray/core/measuring/gauge-kinds'
import { uncertaintyOfMean } from '@moray/core/measuring/judge'

/** Readings of a usual set. */
const SET = 3

/** Windows that no gauge of the shop can judge: twice its uncertainty fills them. */
export function tooFine(body: SheetBody, gauges: readonly Gauge[]): FieldProblem[] {
  return body.measures.flatMap((m) => {
    const { min, max } = m.window ?? {}
    const way = m.kind === 'depth' ? String(m.how?.method ?? '') : m.kind
    const own = gauges.filter((g) => !g.retired && kindOfGauge(g.kind).suits.some((s) => s === way))
    if (min === undefined || max === undefined || !own.length) return []
    const U = Math.min(...own.map((g) => 2 * uncertaintyOfMean(0, m.readings ?? SET, g)))
    return 2 * U < max - min
      ? []
      : [
          {
            path: `measures.${m.id}.window`,
            message: `${m.label}: a window of ${(max - min).toFixed(3)} mm cannot be judged with the best gauge of the shop, ± ${U.toFixed(3)} mm`,
          },
        ]
  })
}
