import { MADE_BY_FIGURES, type SheetBody } from './body.ts'
import { figureFields } from './figures.ts'
import type { FigureField } from './figure-field.ts'
import { same } from './same.ts'
import { ofVariant } from './variants.ts'

/** One thing in which two sheets differ; undefined where one of them has nothing. */
export interface Difference {
  path: string
  /** What the figure is called; a path has no words of its own where it is no figure. */
  label?: string
  from?: unknown
  to?: unknown
}

/** What says nothing about the drive itself. */
const ASIDE = new Set(['version', 'format', 'sources', 'demo', 'upgraded'])

/**
 * In what the second sheet differs from the first: figure by figure, rows of lists by their ids, so that moving a row is no difference. Where
 * figures come from is left out.
 */
export function differences(from: SheetBody, to: SheetBody): Difference[] {
  const labels = new Map([...comparedFields(from), ...comparedFields(to)].map((f) => [f.path, f.label]))
  const found: Difference[] = []
  const walk = (path: string, a: unknown, b: unknown) => {
    if (same(a, b)) return
    const [left, right] = [branches(path, a, b), branches(path, b, a)]
    // a figure is one thing, whatever it is made of
    if (labels.has(path) || !left || !right) {
      const label = labels.get(path)
      found.push({
        path,
        ...(label === undefined ? {} : { label }),
        ...(a === undefined ? {} : { from: a }),
        ...(b === undefined ? {} : { to: b }),
      })
      return
    }
    for (const name of new Set([...left.keys(), ...right.keys()]))
      if (path === '' ? !ASIDE.has(name) : name !== 'id')
        walk(path === '' ? name : `${path}.${name}`, left.get(name), right.get(name))
  }
  walk('', from, to)
  return found
}

/** Figures of a body by the paths that differences have: those of its variants too, each within its patch. */
export const comparedFields = (body: SheetBody): FigureField[] => [
  ...figureFields(body),
  ...(body.variants ?? []).flatMap((v) =>
    figureFields(ofVariant(body, v)).map((f) => ({
      ...f,
      path: `variants.${v.id}.patch.${f.path}`,
      label: `${v.label}: ${f.label}`,
    })),
  ),
]

/**
 * What is compared one by one; a side that has nothing there is empty, unless the other side is a row, which came or went whole. A row that its first
 * figure made is no more than its figures.
 */
function branches(path: string, mine: unknown, other: unknown): Map<string, unknown> | undefined {
  const whole = (v: unknown) => isRow(v) && !MADE_BY_FIGURES.has(path.split('.')[0]!)
  if (isTree(mine)) return other === undefined && whole(mine) ? undefined : entries(mine)
  return mine === undefined && isTree(other) && !whole(other) ? new Map() : undefined
}

type Tree = Record<string, unknown> | unknown[]
const isTree = (v: unknown): v is Tree =>
  typeof v === 'object' && v !== null && (!Array.isArray(v) || v.every(isRow))
const isRow = (v: unknown): v is { id: string } =>
  typeof v === 'object' && v !== null && typeof (v as { id?: unknown }).id === 'string'

const entries = (v: Tree): Map<string, unknown> =>
  new Map(Array.isArray(v) ? (v as { id: string }[]).map((row) => [row.id, row]) : Object.entries(v))
