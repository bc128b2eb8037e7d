import { apply, isPlausible, Judged, MOST_NUMBER, type Common } from './field.ts'
import { isObject, MOST_IN_TABLE } from './instantiate.ts'
import { show } from './show.ts'
import { textProblem } from './text-rule.ts'

/** A merge patch: an object of values and objects, null where something is taken away. Bounded in depth and size. */
export function MergePatch(options: Common): PropertyDecorator {
  return apply({ type: 'patch', max: MOST_IN_PATCH }, options, [
    Judged('isPatch', (v) => {
      if (!isObject(v)) return `must be an object, not ${show(v)}`
      let count = 0
      const problem = (x: unknown, depth: number): string | undefined => {
        if (++count > MOST_IN_PATCH) return `holds more than ${MOST_IN_PATCH} values`
        if (depth > DEEPEST_PATCH) return `is nested deeper than ${DEEPEST_PATCH}`
        if (x === null || typeof x === 'boolean' || isPlausible(x)) return undefined
        if (typeof x === 'string')
          return (
            textProblem(x) ??
            (x.length > 400 ? `holds a text of ${x.length} characters; at most 400` : undefined)
          )
        if (typeof x === 'number') return `holds ${show(x)}`
        for (const [name, inner] of Object.entries(x as object)) {
          const bad =
            name in Object.prototype ? `holds the name "${name}", which nothing can have` : textProblem(name)
          if (bad) return bad
          const deeper = problem(inner, depth + 1)
          if (deeper) return deeper
        }
        return undefined
      }
      return problem(v, 0)
    }),
  ])
}
const MOST_IN_PATCH = 2000
const DEEPEST_PATCH = 8

/** A table from ids to numbers. */
export function NumberTable(options: Common): PropertyDecorator {
  return apply({ type: 'number-table', max: MOST_IN_TABLE }, options, [
    Judged('isNumberTable', (v) =>
      isObject(v) && Object.values(v).every(isPlausible)
        ? undefined
        : `must be a table of finite numbers by id, between ${-MOST_NUMBER} and ${MOST_NUMBER}`,
    ),
  ])
}

/** Edges to other rows by their ids: said, assumed, or asked about and not known. */
export function EdgeMap(options: Common): PropertyDecorator {
  const most = 60
  return apply({ type: 'edges', max: most }, options, [
    Judged('isEdgeMap', (v) => {
      if (!isObject(v)) return `must be a table of ids, not ${show(v)}`
      for (const [id, sure] of Object.entries(v)) {
        if (!EDGE_ID.test(id)) return `names "${id.slice(0, 60)}", which is no id`
        if (sure !== true && sure !== 'assumed' && sure !== 'unknown')
          return `holds ${show(sure)} for "${id}"; one of true, "assumed", "unknown"`
      }
      return undefined
    }),
  ])
}
/** Rows have plain ids; what is set may be named by its kind and its id. */
const EDGE_ID = /^[A-Za-z0-9][A-Za-z0-9:-]{0,79}$/

/** A table from facts to answers: yes or no, a number, or text (a number may come as text in bench notation). */
export function AnswerTable(options: Common): PropertyDecorator {
  const most = 100
  return apply({ type: 'answer-table', max: most }, options, [
    Judged('isAnswerTable', (v) => {
      if (!isObject(v)) return `must be a table of answers, not ${show(v)}`
      for (const [fact, x] of Object.entries(v)) {
        const bad = answerProblem(x)
        if (bad) return `"${fact}" ${bad}`
      }
      return undefined
    }),
  ])
}

function answerProblem(x: unknown): string | undefined {
  if (typeof x === 'boolean') return undefined
  if (typeof x === 'number')
    return isPlausible(x) ? undefined : `is ${x}; between ${-MOST_NUMBER} and ${MOST_NUMBER} is possible`
  if (typeof x !== 'string') return `must be yes or no, a number or text, not ${show(x)}`
  return textProblem(x) ?? (x.length > 600 ? `has ${x.length} characters; at most 600 are kept` : undefined)
}
