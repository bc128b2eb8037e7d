/** Everything that is done to a unit, and what it is done to. */
export const VERBS = {
  came: 'unit',
  remove: 'part',
  fit: 'part',
  'press-out': 'part',
  'press-in': 'part',
  renew: 'part',
  'leave-out': 'part',
  grade: 'part',
  loosen: 'group',
  'take-out': 'group',
  snug: 'group',
  tighten: 'group',
  lock: 'group',
  adjust: 'stack',
  measure: 'setting',
  accept: 'setting',
  prove: 'test',
  leak: 'joint',
  drain: 'space',
  fill: 'space',
  settle: 'space',
  'leave-dry': 'space',
  part: 'interface',
  join: 'interface',
  'put-in': 'thing',
  'take-away': 'thing',
  press: 'unit',
  'let-out': 'unit',
  run: 'unit',
  know: 'topic',
  find: 'thing',
  account: 'thing',
  waive: 'line',
  end: 'unit',
} as const
export type Verb = keyof typeof VERBS

/** How sure an act is: seen by whoever entered it, said to have been done, or only to be concluded from what followed. */
export const SURE = ['seen', 'said', 'inferred'] as const
export type HowSure = (typeof SURE)[number]

/** Where an act comes from. */
export const SOURCES = [
  'closing',
  'row',
  'reading',
  'acceptance',
  'grade',
  'stack',
  'approval',
  'told',
  'repair',
  'carried-over',
  'inferred',
] as const
export type ActSource = (typeof SOURCES)[number]

export const CONDITIONS = ['unknown', 'good', 'dress', 'condemned', 'unsafe'] as const
export type Condition = (typeof CONDITIONS)[number]

/** In what the unit ends. */
export const ENDS = ['boat', 'stand', 'closed-dry', 'as-it-is', 'boxes', 'scrapped'] as const
export type End = (typeof ENDS)[number]

/** Topics that are known or not. */
export const TOPICS = [
  'shift',
  'turns',
  'propeller-turns',
  'water',
  'ratio',
  'runs',
  'decided',
  'place',
] as const
export type Topic = (typeof TOPICS)[number]

/** What is said with an act; each verb uses its own. */
export interface Figures {
  /** came: how the unit stands; nothing is known of one that was worked on elsewhere. */
  came?: 'mounted' | 'whole' | 'off' | 'elsewhere' | 'boxes'
  /** came: parts that were kept of the unit before. */
  kept?: readonly string[]
  /** leave-out: for a trial, or for good. */
  until?: 'trial' | 'good'
  condition?: Condition
  /** Why, as a code of the criteria or of a finding. */
  why?: string
  /** prove, measure: what came of it. */
  verdict?: 'good' | 'bad' | 'unclear'
  /** measure: same parts seated again and read once, instead of being set anew. */
  check?: boolean
  /** accept, measure: number of the build. */
  build?: number
  /** measure: what was read, in the unit of its window. */
  value?: number
  /** adjust: the stack as it is kept, or how far a carrier is turned in. */
  stack?: string
  ml?: number
  /** run: the screws were looked at, and dry. */
  dry?: boolean
  end?: End
}

/** One thing that was done, as it stands in the log of a unit. */
export interface Act {
  /** Given under the lock of the unit; it alone orders. */
  n: number
  do: Verb
  /** Id of the row that it was done to. */
  on: string
  fig?: Figures
  by: string
  /** When it was entered, and when it happened; ISO 8601. */
  entered: string
  at: string
  sure: HowSure
  from: ActSource
}

/** An act with what it comes from in the record, and its place among the acts of that. */
export interface RecordedAct extends Act {
  key: string
  place: number
}

/** The same as the log keeps it: what was claimed. When and by whom stands in what it comes from. */
export interface LoggedAct extends Pick<RecordedAct, 'key' | 'place' | 'do' | 'on' | 'fig' | 'sure'> {
  /** Number of the write by which it came into the log of the unit. */
  write: number
}

/** An act before it has its place in the log. */
export type Deed = Pick<Act, 'do' | 'on' | 'fig'>
