import { refuse } from '../checks/input-error.ts'
import { seedTable, shopTable, type FaultCase, type LikelihoodEdit } from './fault-history.ts'
import type { Finding, Trait } from './fault-table.ts'

export interface FaultRankInput {
  /** Ids of findings that are there. */
  findings: string[]
  /** Ids of findings that were looked for and are not there. */
  absent?: string[]
  /** Faults of the shop that were followed to their end. */
  history?: FaultCase[]
  /** Likelihoods that the shop has set itself. */
  edits?: LikelihoodEdit[]
  /** What the drive has: causes of anything else are left out. Without it every drive is meant, and nothing that only few have. */
  drive?: Trait[]
}

export interface FaultRank {
  causes: {
    id: string
    label: string
    probability: number
    /** Findings that go with this cause far more often than by chance, and those that do not fit it. */
    speaksFor: string[]
    speaksAgainst: string[]
    /** How often this was the cause in the shop's own history. */
    seenHere: number
  }[]
  /** Best first: information per cost. */
  nextChecks: { id: string; label: string; expectedBits: number; cost: number; minutes: number }[]
}

/** How many times more (or less) often than by chance a finding goes with a cause before it is named for or against it. */
const TELLING = 3

/**
 * Ranks causes by Bayes' rule, findings taken as independent given the cause, and proposes the next check by
 * expected information (bits of entropy over the causes, Lindley 1956) against its cost. On a drive that is named, a check of which
 * one finding is known was done: it is not proposed again.
 * @throws InputError naming a finding that the table does not know, or one that is both there and not
 */
export function faultRank(input: FaultRankInput): FaultRank {
  const history = input.history ?? []
  const all = new Set(seedTable.causes.map((c) => c.id))
  const mine = onDrive(seedTable.causes, input.drive)
  // what cannot be on this drive neither counts nor is asked for; a name that nobody knows is still refused
  const counts = ({ cause }: { cause: string }) => !all.has(cause) || mine.some((c) => c.id === cause)
  const table = shopTable(history.filter(counts), input.edits?.filter(counts), { ...seedTable, causes: mine })
  const { findings } = table
  const { causes } = table
  const checks = onDrive(table.checks, input.drive)
  const look = (path: string, ids: string[]): Finding[] => {
    if (!Array.isArray(ids)) refuse(path, 'must be a list of findings')
    return [...new Set(ids)].map(
      (id, i) =>
        findings.find((f) => f.id === id) ??
        refuse(
          `${path}[${i}]`,
          `"${id}" is no finding of the table; there are ${findings.map((f) => f.id).join(', ')}`,
        ),
    )
  }
  const present = look('findings', input.findings)
  const absent = look('absent', input.absent ?? [])
  const both = present.find((f) => absent.includes(f))
  if (both) refuse('absent', `holds "${both.id}", which is among the findings too`)

  const prior = normalise(causes.map((c) => c.weight))
  const posterior = normalise(
    causes.map((c, i) => {
      let p = prior[i]!
      for (const f of present) p *= likelihood(f, c.id)
      for (const f of absent) p *= 1 - likelihood(f, c.id)
      return p
    }),
  )
  const average = (f: Finding) => causes.reduce((sum, c, i) => sum + posterior[i]! * likelihood(f, c.id), 0)
  const known = new Set([...present, ...absent])
  const entropyNow = entropy(posterior)
  return {
    causes: causes
      .map((c, i) => ({
        id: c.id,
        label: c.label,
        probability: posterior[i]!,
        speaksFor: present.filter((f) => likelihood(f, c.id) >= TELLING * f.background).map((f) => f.id),
        speaksAgainst: [
          ...present.filter((f) => TELLING * likelihood(f, c.id) <= average(f)).map((f) => f.id),
          ...absent.filter((f) => likelihood(f, c.id) >= TELLING * f.background).map((f) => f.id),
        ],
        seenHere: history.filter((h) => h.cause === c.id).length,
      }))
      .sort((a, b) => b.probability - a.probability || (a.id < b.id ? -1 : 1)),
    nextChecks: checks
      .filter((check) => !input.drive || !check.shows.some((id) => [...known].some((f) => f.id === id)))
      .map((check) => {
        const open = check.shows.map((id) => findings.find((f) => f.id === id)!).filter((f) => !known.has(f))
        return {
          id: check.id,
          label: check.label,
          cost: check.cost,
          minutes: check.minutes,
          expectedBits:
            entropyNow -
            entropyAfter(
              posterior,
              causes.map((c) => c.id),
              open,
            ),
        }
      })
      .filter((c) => c.expectedBits > 1e-9)
      .sort((a, b) => b.expectedBits / b.cost - a.expectedBits / a.cost || (a.id < b.id ? -1 : 1)),
  }
}

/** Drives of a rare kind: what only they have is meant when one of them is. */
const RARE: ReadonlySet<Trait> = new Set(['belt'])

/** Rows of the table that are true for a drive. */
export const onDrive = <T extends { of?: readonly Trait[] }>(
  rows: readonly T[],
  drive: readonly Trait[] | undefined,
): T[] => rows.filter((r) => (r.of ?? []).every((t) => (drive ? drive.includes(t) : !RARE.has(t))))

function likelihood(finding: Finding, cause: string): number {
  return finding.speaksFor[cause] ?? finding.background
}

function normalise(weights: number[]): number[] {
  const sum = weights.reduce((a, b) => a + b, 0)
  return weights.map((w) => w / sum)
}

const entropy = (p: number[]) => -p.reduce((sum, v) => (v > 0 ? sum + v * Math.log2(v) : sum), 0)

/** Expected entropy once every finding of `open` is known to be there or not; all combinations are gone through. */
function entropyAfter(p: number[], causes: string[], open: Finding[]): number {
  const [finding, ...rest] = open
  if (!finding) return entropy(p)
  const there = p.map((v, i) => v * likelihood(finding, causes[i]!))
  const chance = there.reduce((a, b) => a + b, 0)
  const missing = p.map((v, i) => v - there[i]!)
  return (
    chance * entropyAfter(normalise(there), causes, rest) +
    (1 - chance) * entropyAfter(normalise(missing), causes, rest)
  )
}
