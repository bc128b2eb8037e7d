import { upgraded } from '@moray/core/drives/upgrade/upgrade'
import type { Body3 } from '@moray/core/drives/upgrade/body-3'
import { isObject } from '../fields/instantiate.ts'

/**
 * A sheet of format 3 as one of the present format, so that a file that an older Moray wrote is taken. It comes from anywhere: what cannot be read as a sheet
 * of that format comes back as it is, and the classes of the present one name what is wrong.
 */
export function raised(value: unknown): unknown {
  if (!isObject(value) || (value as { format?: unknown }).format !== 3) return value
  try {
    return JSON.parse(JSON.stringify(upgraded(value as unknown as Body3)))
  } catch {
    return value
  }
}
