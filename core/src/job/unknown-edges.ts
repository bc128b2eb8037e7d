import { EDGE_FIELDS, rowsOf } from '../drives/graph/edge-fields.ts'
import { edgeQuestion } from '../drives/graph/edge-question.ts'
import { edgesOf, type Edges } from '../drives/graph/edges.ts'
import { rowName } from '../drives/graph/row-name.ts'
import type { Graph, GraphList } from '../drives/graph/rows.ts'
import { edgePath, type EdgeAt } from '../drives/own/from-bench.ts'
import { baseOf } from '../route/occurrence.ts'
import { actsOfStep, classesOn } from '../route/step-acts.ts'
import { stepsOf } from './acts/claims.ts'
import type { JudgedJob } from './judged.ts'

/** A question that the sheet leaves open, and that the work touches. */
export interface OpenEdge extends EdgeAt {
  question: string
}

/**
 * What the sheet does not know of the rows that a step touches: whether one of them leads to another. Asked once, when the hand is there; what was
 * answered before, or could not be told, is not asked again on this job.
 */
export function openEdges(job: JudgedJob, step: string): OpenEdge[] {
  const { graph } = job.sheet
  const all = unknownEdges(graph)
  if (!all.length) return []
  const told = new Set((job.told ?? []).flatMap((t) => (t.kind === 'not-known' ? [t.subject] : [])))
  const touched = touchedBy(job, step)
  return all.filter((e) => touched.has(`${e.list} ${e.row}`) && !told.has(edgePath(e)))
}

/** Every edge of which somebody said that nobody knows it, with its question. */
export function unknownEdges(graph: Graph): OpenEdge[] {
  return (
    Object.entries(EDGE_FIELDS) as [GraphList, Readonly<Record<string, readonly GraphList[]>>][]
  ).flatMap(([list, fields]) =>
    rowsOf(graph, list).flatMap((row) =>
      Object.entries(fields).flatMap(([field, lists]) =>
        Object.entries((row[field] as Edges | undefined) ?? {}).flatMap(([to, sure]) => {
          if (sure !== 'unknown') return []
          const other = lists.flatMap((l) => rowsOf(graph, l)).find((r) => r.id === to)
          const question = edgeQuestion(field, rowName(row) ?? row.id, rowName(other) ?? to)
          return [{ list, row: row.id, field, to, question }]
        }),
      ),
    ),
  )
}

/** Rows that the acts of a step touch: what is taken off or fitted, and the joints that this opens. */
function touchedBy({ sheet, work }: JudgedJob, step: string): Set<string> {
  const classes = new Set(actsOfStep(baseOf(step), stepsOf(sheet)))
  const of = classesOn(sheet)
  const ids = new Set(work.left.deeds.filter((d) => of(d).some((c) => classes.has(c))).map((d) => d.on))
  const { graph } = sheet
  const joints = (graph.joints ?? []).filter((j) =>
    [j.between, j.closedBy, j.sealedBy].some((edges) => edgesOf(edges).some((id) => ids.has(id))),
  )
  return new Set([
    ...[...ids].flatMap((id) => [`parts ${id}`, `groups ${id}`, `settings ${id}`]),
    ...joints.map((j) => `joints ${j.id}`),
  ])
}
