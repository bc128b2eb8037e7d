import type { Unit } from '../graph/rows.ts'
import type { SheetBody } from './body.ts'

/** What the unit says in single lines. */
export const REMARKS = ['cautions', 'trimTab', 'partner', 'plateAt', 'stampsAt', 'exchange', 'used'] as const
export type Remarks = Pick<Unit, (typeof REMARKS)[number]>

/** The lines that stand; what is empty is not there. */
export const remarksOf = (body: SheetBody): Remarks =>
  Object.fromEntries(REMARKS.flatMap((k) => (body.unit?.[k] ? [[k, body.unit[k]]] : []))) as Remarks

/** The body with other lines; what is empty leaves no trace. */
export function withRemarks(body: SheetBody, remarks: Remarks): SheetBody {
  const others = Object.entries(body.unit ?? {}).filter(([k]) => !REMARKS.some((r) => r === k))
  const lines = REMARKS.flatMap((k) => {
    const v = remarks[k]
    return v === undefined || ('length' in Object(v) && !(v as string).length) ? [] : [[k, v] as const]
  })
  const unit = Object.fromEntries([...others, ...lines]) as Unit
  const { unit: _before, ...rest } = body
  return Object.keys(unit).length ? { ...rest, unit } : rest
}
