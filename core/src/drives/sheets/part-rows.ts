import type { Part, PartKind } from '../parts.ts'
import { withRoles } from './part-roles.ts'

interface Options {
  place?: string
  count?: number
  after?: string[]
  set?: string
  kit?: string
  waitDays?: number
  inside?: boolean
  role?: NonNullable<Part['role']>
}

/** Parts that end up inside the case unless a sheet says otherwise. */
const INSIDE: PartKind[] = ['gear', 'shaft', 'bearing', 'needle', 'cup', 'shim', 'washer', 'key', 'clutch']

/** One row of a parts list. Price in kroner. */
export function part(id: string, name: string, kind: PartKind, price: number, options: Options = {}): Part {
  const { count = 1, after = [], waitDays = 2, inside = INSIDE.includes(kind), ...rest } = options
  return withRoles({ id, name, kind, price, count, after, waitDays, inside, ...rest })
}

/** Everything that seals is one purchase: every seal and ring of a sheet carries the kit and its price. */
export function sealKit(kit: string, price: number) {
  return {
    seal: (id: string, name: string, options: Options = {}) =>
      part(id, name, 'seal', price, { kit, ...options }),
    ring: (id: string, name: string, options: Options = {}) =>
      part(id, name, 'ring', price, { kit, ...options }),
  }
}
