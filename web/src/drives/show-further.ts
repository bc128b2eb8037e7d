import type { Fastener } from '@moray/core/drives/fasteners'
import { useOwn } from '../stores/own.ts'
import { SHAPES, type Column, type RowForm } from './further-columns.ts'
import { figureText } from './own/show-figure.ts'

export type FurtherRow = { id: string } & Record<string, unknown>

/** Rows of seals, tools and the like for the eye: the name, and what else is said of it, in the units of whoever looks. */
export function useShownRows(fasteners: () => readonly Fastener[] | undefined) {
  const own = useOwn()
  function shown(c: Column, value: unknown): string {
    if (value === undefined || value === false) return ''
    switch (c.is) {
      case 'choice':
        return c.choices?.[String(value)] ?? String(value)
      case 'torque':
      case 'length':
        return figureText({ shape: SHAPES[c.is] }, value, own.first)
      case 'flag':
        return c.label
      case 'fasteners':
        return (value as string[]).map((id) => fasteners()?.find((f) => f.id === id)?.name ?? id).join(', ')
      case 'seal':
        return ''
      default:
        return Array.isArray(value) ? value.join(', ') : String(value)
    }
  }
  const said = (c: Column, value: unknown) => {
    const text = shown(c, value)
    return text && c.said ? `${c.said} ${text}` : text
  }
  return {
    shown,
    titleOf: ({ columns: [name] }: RowForm, row: FurtherRow) => shown(name!, row[name!.key]),
    aboutOf: ({ columns: [, ...others] }: RowForm, row: FurtherRow) =>
      others
        .map((c) => said(c, row[c.key]))
        .filter(Boolean)
        .join(' · '),
  }
}
