import { InputError, type FieldProblem } from '@moray/core/checks/input-error'
import type { SheetBody } from '@moray/core/drives/own/body'
import { checkBody } from '@moray/core/route/check-body'
import type { RowList } from '@moray/core/drives/own/rows'
import { ofVariant } from '@moray/core/drives/own/variants'
import { factsOfClass } from '../fields/describe.ts'
import { MOST_PROBLEMS } from '../fields/instantiate.ts'
import { validate } from '../fields/validate.ts'
import { SheetFile } from './sheet-file.ts'
import { UnitFields } from './unit-fields.ts'

/** What a variant shares with its sheet: a patch that changed it would make another sheet. */
const SHARED = ['id', 'format', 'family', 'name', 'version', 'variant', 'variants'] as const

/** How many rows a list of a sheet may hold. */
export const mostRows = (list: RowList): number =>
  (factsOfClass(SheetFile).get(list) ?? factsOfClass(UnitFields).get(list))!.max!

/**
 * What is wrong in a body, its variants included: each of them has to be a whole sheet by the same classes before it is looked into any further.
 * @returns at most 50 problems; none where the body may be published
 */
export function bodyProblems(body: SheetBody): FieldProblem[] {
  const broken = (body.variants ?? []).flatMap((variant, i) => {
    const at = `variants[${i}].patch`
    const changed = SHARED.filter((name) => Object.hasOwn(variant.patch, name))
    if (changed.length)
      return changed.map((name) => ({
        path: `${at}.${name}`,
        message: `${variant.label}: a variant has the ${name} of its sheet; take it out of the patch`,
      }))
    return shapeProblems(ofVariant(body, variant)).map((p) => ({
      path: `${at}.${p.path}`,
      message: `${variant.label}: ${p.message}`,
    }))
  })
  // a body that a patch has made is held against the classes as well
  if (body.variant) broken.push(...shapeProblems(body))
  return (broken.length ? broken : checkBody(body).wrong).slice(0, MOST_PROBLEMS)
}

/** What a sheet's classes have against a body. */
function shapeProblems(body: SheetBody): FieldProblem[] {
  try {
    validate(SheetFile, JSON.parse(JSON.stringify(body)))
    return []
  } catch (e) {
    if (e instanceof InputError) return e.fields
    throw e
  }
}
