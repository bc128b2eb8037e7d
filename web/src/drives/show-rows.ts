import { rowName } from '@moray/core/drives/graph/row-name'
import { edgesOf, type Edges } from '@moray/core/drives/graph/edges'
import type { Graph, Piece } from '@moray/core/drives/graph/rows'
import { useOwn } from '../stores/own.ts'
import { SHAPES, type Column, type RowForm } from './forms/column.ts'
import { figureText } from './own/show-figure.ts'

export type ShownRow = { id: string } & Record<string, unknown>

/** What the rows of a sheet are read from: its graph, and its service intervals. */
export type Listed = Graph & { service?: readonly object[] }

/** The rows of a list, wherever the sheet has it. */
export const rowsOfForm = (graph: Listed, { list }: RowForm): readonly ShownRow[] =>
  ((list === 'levers' || list === 'attitudes' ? graph.unit?.[list] : graph[list]) ??
    []) as unknown as readonly ShownRow[]

/** What a row is called; its id where it has no name. */
export const shownName = (row: ShownRow): string => rowName(row) ?? row.id

/** Rows that an edge of a row may lead to; a row of its own list never to itself. */
export const optionsOf = (graph: Graph, { list: own }: RowForm, c: Column, row?: ShownRow) =>
  (c.to ?? []).flatMap((list) =>
    ((graph[list] ?? []) as unknown as ShownRow[])
      .filter((r) => list !== own || r.id !== row?.id)
      .map((r) => ({ id: r.id, label: shownName(r) })),
  )

/** Rows of a sheet for the eye: the name, and what else is said of it, in the units of whoever looks. */
export function useShownRows(
  graph: () => Graph,
  settingName: (id: string) => string,
  placeName: (id: string) => string = (id) => id,
) {
  const own = useOwn()
  const nameOf = (c: Column, id: string) => {
    for (const list of c.to ?? []) {
      const row = (graph()[list] as readonly { id: string }[] | undefined)?.find((r) => r.id === id)
      if (row) return shownName(row as ShownRow)
    }
    return id
  }
  /** Where the edges of a row lead, each with how sure it is. */
  const edgesShown = (c: Column, edges: Edges | undefined) =>
    Object.entries(edges ?? {}).map(([id, sure]) => ({ id, name: nameOf(c, id), sure }))
  const edgeText = (c: Column, edges: Edges) =>
    [
      ...edgesOf(edges).map((id) => nameOf(c, id) + (edges[id] === 'assumed' ? ' (assumed)' : '')),
      ...Object.entries(edges).flatMap(([id, sure]) =>
        sure === 'unknown' ? [`${nameOf(c, id)} (not known)`] : [],
      ),
    ].join(', ')
  function shown(c: Column, value: unknown): string {
    if (value === undefined || value === false) return ''
    switch (c.is) {
      case 'choice':
        return c.choices?.[String(value)] ?? String(value)
      case 'choices':
        return (value as string[]).map((v) => c.choices?.[v] ?? v).join(', ')
      case 'torque':
      case 'length':
      case 'window':
      case 'volume':
        return figureText({ shape: SHAPES[c.is] }, value, own.first)
      case 'flag':
        return c.label
      case 'edges':
        return edgeText(c, value as Edges)
      case 'pieces':
        return (value as Piece[]).map((p) => p.name).join(', ')
      case 'setting':
        return settingName(String(value))
      case 'seal':
        return ''
      case 'place':
        return placeName(String(value))
      default:
        return Array.isArray(value) ? value.join(', ') : String(value)
    }
  }
  const said = (c: Column, value: unknown) => {
    // one of a thing goes without saying
    const text = c.quiet || (c.said === '×' && value === 1) ? '' : shown(c, value)
    return text && c.said ? `${c.said} ${text}` : text
  }
  return {
    shown,
    edgesShown,
    titleOf: ({ columns: [name] }: RowForm, row: ShownRow) => shown(name!, row[name!.key]) || row.id,
    aboutOf: ({ columns: [, ...others] }: RowForm, row: ShownRow) =>
      others
        .map((c) => said(c, row[c.key]))
        .filter(Boolean)
        .join(' · '),
  }
}
