import { InputError } from '@moray/core/checks/input-error'
import type { Body3 } from '@moray/core/drives/upgrade/body-3'
import { upgraded } from '@moray/core/drives/upgrade/upgrade'
import { isObject } from '../fields/instantiate.ts'

const LISTS = ['axes', 'gears', 'meshes', 'adjusters', 'bearings', 'seals', 'measures', 'parts'] as const

/**
 * A sheet of format 3 as one of the present format, so that a file that an older Moray wrote is taken; anything else comes back as it is. It comes from
 * anywhere, and what it makes is checked by the classes of the present format.
 * @throws InputError at `format` when it says that it is of format 3 and cannot be read as that
 */
export function raised(value: unknown): unknown {
  const sheet = isObject(value) ? (value as Record<string, unknown>) : undefined
  if (sheet?.format !== 3) return value
  const missing = LISTS.find((list) => !Array.isArray(sheet[list]))
  const why = missing ? `${missing} is no list` : 'a row of it has not what every row has'
  try {
    if (!missing) return JSON.parse(JSON.stringify(upgraded({ bench: {}, ...sheet } as unknown as Body3)))
  } catch {
    // said below: a row that is none fails at any place
  }
  throw new InputError('invalid-input', [
    {
      path: 'format',
      message: `is 3, and the rest is no sheet of that format: ${why}. Take the file as "Save as a file" has written it`,
    },
  ])
}

/** The same for the sheet that a body brings along. */
export function raisedIn(body: unknown): unknown {
  if (!isObject(body) || !('sheet' in body)) return body
  try {
    return { ...body, sheet: raised(body.sheet) }
  } catch (e) {
    if (!(e instanceof InputError)) throw e
    throw new InputError(
      e.code,
      e.fields.map((f) => ({ ...f, path: `sheet.${f.path}` })),
    )
  }
}
