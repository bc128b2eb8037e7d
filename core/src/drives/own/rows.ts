import type { BodyBearing, SheetBody } from './body.ts'

/** Lists of a body whose rows are added and taken out one by one. */
export type RowList = 'adjusters' | 'bearings' | 'measures' | 'parts' | 'fasteners' | 'service' | 'variants'

type Rows = { id: string }[]

/**
 * The body without a row, and without what only made sense with it: sources of its figures, rules about a measure, shims of a stack, the place
 * of a part on the drawing. A part that had to wait for one that is gone waits for what that one waited for.
 */
export function withoutRow(body: SheetBody, list: RowList, id: string): SheetBody {
  const gone = { ...body, [list]: ((body[list] ?? []) as Rows).filter((r) => r.id !== id) } as SheetBody
  const sources = gone.sources?.filter((s) => !s.path.startsWith(`${list}.${id}.`))
  const clean: SheetBody = { ...gone, ...(sources ? { sources } : {}) }
  switch (list) {
    case 'adjusters':
    case 'bearings': {
      const place = list === 'adjusters' ? `stack:${id}` : `bearing:${id}`
      const shims = clean.parts.filter((p) => p.place === place && p.kind === 'shim')
      const left = shims.reduce((b, p) => withoutRow(b, 'parts', p.id), clean)
      return {
        ...left,
        ...(list === 'adjusters' ? { bearings: left.bearings.map((b) => unset(b, id)) } : {}),
        parts: left.parts.map((p) => {
          if (p.place !== place) return p
          const { place: _place, ...rest } = p
          return rest
        }),
      }
    }
    case 'measures':
      return {
        ...clean,
        ...(sources ? { sources: sources.filter((s) => !s.path.endsWith(`.rules.${id}`)) } : {}),
        adjusters: clean.adjusters.map((a) => {
          if (!a.rules || !(id in a.rules)) return a
          const { [id]: _rule, ...rules } = a.rules
          return { ...a, rules }
        }),
      }
    case 'parts': {
      const waited = body.parts.find((p) => p.id === id)?.after ?? []
      return {
        ...clean,
        parts: clean.parts.map((p) =>
          p.after?.includes(id)
            ? { ...p, after: [...new Set([...p.after.filter((a) => a !== id), ...waited])] }
            : p,
        ),
      }
    }
    case 'fasteners': {
      const closures = clean.further?.closures?.map((c) =>
        c.fasteners?.includes(id) ? { ...c, fasteners: c.fasteners.filter((f) => f !== id) } : c,
      )
      return closures ? { ...clean, further: { ...clean.further, closures } } : clean
    }
    default:
      return clean
  }
}

/** A bearing whose stack is gone knows no stack, and no change of torque by it. */
function unset(b: BodyBearing, stack: string): BodyBearing {
  if (b.setting?.by !== stack) return b
  if (b.setting.kind === 'crush') {
    const { by: _by, ...setting } = b.setting
    return { ...b, setting }
  }
  const { by: _by, nmPerMm: _slope, ...setting } = b.setting
  return { ...b, setting }
}
