import { csvText, type Cell, type CsvColumn } from '@moray/contract/csv'
import type { JobFile } from '@moray/contract/job-file'
import { isTorqueUnit, type ReadingUnit } from '@moray/contract/requests/reading-units'
import { LEAK_TESTS } from '@moray/core/route/step-ids'
import { eventText } from '@moray/core/job/event-text'

interface Answer {
  step: string
  what: string
  asked: string
  answer: Cell
  unit: string
  typed: string
  by: string
  at: string
  entered: Cell
  takenBack: string
}

/** What the steps asked and what was answered, a row for each answer. */
function answersOf({ closings }: JobFile): Answer[] {
  return closings.flatMap((c) =>
    Object.entries(c.answers).map(([fact, value]) => {
      const asked = c.asked?.asks.find((a) => a.fact === fact)
      return {
        step: c.step,
        what: c.asked?.what ?? '',
        asked: asked?.label ?? fact,
        answer: asked?.options?.find((o) => o.value === value)?.label ?? value,
        unit: asked?.unit ?? '',
        typed: c.texts[fact] ?? '',
        by: c.by,
        at: c.at,
        entered: c.entered,
        takenBack: c.takenBack?.reason ?? '',
      }
    }),
  )
}

const col = <T>(name: string, of: (row: T) => Cell): CsvColumn<T> => ({ name, of })

const ANSWER = [
  col<Answer>('step', (a) => a.step),
  col<Answer>('what', (a) => a.what),
  col<Answer>('asked', (a) => a.asked),
  col<Answer>('answer', (a) => a.answer),
  col<Answer>('unit', (a) => a.unit),
  col<Answer>('as typed', (a) => a.typed),
  col<Answer>('by', (a) => a.by),
  col<Answer>('at', (a) => a.at),
  col<Answer>('entered as', (a) => a.entered),
  col<Answer>('taken back because', (a) => a.takenBack),
]

/** The job as tables, by file name. */
export function jobTables(file: JobFile): Record<string, string> {
  const { job } = file
  const answers = answersOf(file)
  const readings = job.builds.flatMap((b) => b.readings.map((r) => ({ b, r })))
  const pieces = job.builds.flatMap((b) =>
    b.stacks.flatMap((s) => (s.pieces.length ? s.pieces : [null]).map((p, i) => ({ b, s, p, i }))),
  )
  type Reading = (typeof readings)[number]
  type Piece = (typeof pieces)[number]
  type Event = JobFile['events'][number]
  const reading = [
    col<Reading>('trial', ({ b }) => b.number),
    col<Reading>('measure', ({ r }) => r.measure),
    col<Reading>('value', ({ r }) => r.value),
    col<Reading>('shown by the gauge', ({ r }) => r.raw),
    col<Reading>('unit', ({ r }) => (isTorqueUnit(r.unit as ReadingUnit) ? 'Nm' : 'mm')),
    col<Reading>('as typed', ({ r }) => r.text),
    col<Reading>('gauge', ({ r }) => r.gaugeName),
    col<Reading>('calibration overdue', ({ r }) => r.gaugeOverdue),
    col<Reading>('master (mm)', ({ r }) => r.masterMm),
    col<Reading>('clock (deg)', ({ r }) => r.clockDeg),
    col<Reading>('note', ({ r }) => r.note),
    col<Reading>('by', ({ r }) => r.by),
    col<Reading>('at', ({ r }) => r.at),
    col<Reading>('entered as', ({ r }) => r.entered),
    col<Reading>('superseded because', ({ r }) => r.superseded?.reason),
  ]
  return {
    'readings.csv': csvText(reading, readings),
    'stacks.csv': csvText(
      [
        col<Piece>('trial', ({ b }) => b.number),
        col<Piece>('place', ({ s }) => s.location),
        col<Piece>('stack (mm)', ({ s }) => s.thicknessMm),
        col<Piece>('piece', ({ p, i }) => (p ? i + 1 : null)),
        col<Piece>('thickness (mm)', ({ p }) => p?.thicknessMm),
        col<Piece>('as typed', ({ p }) => p?.text),
        col<Piece>('from', ({ p }) => p?.origin),
        col<Piece>('by', ({ s }) => s.by),
        col<Piece>('at', ({ s }) => s.at),
        col<Piece>('superseded because', ({ s }) => s.superseded?.reason),
      ],
      pieces,
    ),
    'torques.csv': csvText(
      ANSWER,
      answers.filter((a) => a.unit === 'Nm'),
    ),
    'tests.csv': csvText(
      ANSWER,
      answers.filter((a) => (LEAK_TESTS as readonly string[]).includes(a.step)),
    ),
    'answers.csv': csvText(ANSWER, answers),
    'events.csv': csvText(
      [
        col<Event>('number', (e) => e.id),
        col<Event>('at', (e) => e.at),
        col<Event>('by', (e) => e.by),
        col<Event>('kind', (e) => e.kind),
        col<Event>('what', (e) => eventText(e)),
        col<Event>('clock ran back (s)', (e) => e.clockBackS),
      ],
      file.events,
    ),
  }
}
