import { refuse } from '../checks/input-error.ts'
import { within } from '../checks/numbers.ts'
import { causes, checks, findings, type Cause, type Check, type Finding } from './fault-table.ts'

/** Causes, findings and checks with how strongly each finding speaks for each cause. */
export interface FaultTable {
  causes: Cause[]
  findings: Finding[]
  checks: Check[]
}

export const seedTable: FaultTable = { causes, findings, checks }

/** A fault of this shop that was followed to its end. */
export interface FaultCase {
  /** What it turned out to be. */
  cause: string
  findings: string[]
  /** What was looked for and was not there. */
  absent?: string[]
}

/** A likelihood that the shop has set itself. */
export interface LikelihoodEdit {
  finding: string
  cause: string
  likelihood: number
}

/** How many cases of the shop's own weigh as much as the seed table's word on a cause's frequency, and on a likelihood. */
const PRIOR_CASES = 20
const LIKELIHOOD_CASES = 6
/** Never certain: one finding may not rule a cause out or in for good. */
const LEAST = 0.005

/**
 * The table as the shop's own history has changed it. How common a cause is: seed weights count as 20 cases, the shop's
 * cases are added (Dirichlet prior). A likelihood P(finding | cause): the seed counts as 6 cases, those of the shop with that
 * cause in which the finding was seen, or was looked for and not seen, are added (beta prior). Edits stand above both.
 * @throws InputError naming causes and findings that the table does not know, and likelihoods that cannot be
 */
export function shopTable(
  history: readonly FaultCase[],
  edits: readonly LikelihoodEdit[] = [],
  table: FaultTable = seedTable,
): FaultTable {
  const mustKnow = (path: string, id: string, rows: { id: string }[]) => {
    if (!rows.some((r) => r.id === id))
      refuse(path, `"${id}" is not in the table; there are ${rows.map((r) => r.id).join(', ')}`)
  }
  history.forEach((c, i) => {
    mustKnow(`history[${i}].cause`, c.cause, table.causes)
    for (const f of [...c.findings, ...(c.absent ?? [])])
      mustKnow(`history[${i}].findings`, f, table.findings)
  })
  edits.forEach((e, i) => {
    mustKnow(`edits[${i}].cause`, e.cause, table.causes)
    mustKnow(`edits[${i}].finding`, e.finding, table.findings)
    within(`edits[${i}].likelihood`, e.likelihood, LEAST, 1 - LEAST)
  })
  const total = table.causes.reduce((sum, c) => sum + c.weight, 0)
  return {
    ...table,
    causes: table.causes.map((c) => ({
      ...c,
      weight: (PRIOR_CASES * c.weight) / total + history.filter((h) => h.cause === c.id).length,
    })),
    findings: table.findings.map((f) => {
      const speaksFor = { ...f.speaksFor }
      for (const c of table.causes) {
        const own = history.filter((h) => h.cause === c.id)
        const seen = own.filter((h) => h.findings.includes(f.id)).length
        const missed = own.filter((h) => h.absent?.includes(f.id)).length
        if (seen + missed === 0) continue
        const seed = f.speaksFor[c.id] ?? f.background
        const learned = (LIKELIHOOD_CASES * seed + seen) / (LIKELIHOOD_CASES + seen + missed)
        speaksFor[c.id] = Math.min(1 - LEAST, Math.max(LEAST, learned))
      }
      for (const e of edits) if (e.finding === f.id) speaksFor[e.cause] = e.likelihood
      return { ...f, speaksFor }
    }),
  }
}
