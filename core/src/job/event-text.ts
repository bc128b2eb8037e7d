import { edgeQuestion } from '../drives/graph/edge-question.ts'
import { listName } from '../drives/graph/list-names.ts'
import type { PieceCut } from '../setting/shim-problem.ts'
import { turnedText } from '../setting/turned.ts'
import { inWords, showBoth, type UnitSystem } from '../units/format.ts'
import type {
  DrawerChange,
  EventEntry,
  GaugeChange,
  GaugeFigure,
  Happened,
  PersonSaid,
  SheetChange,
  ShopChange,
} from './event.ts'

/** A length as the reader has it. */
type Say = (mm: number) => string
const figure = (say: Say, length?: number, torque?: number) =>
  torque === undefined ? say(length!) : inWords(Number(torque.toFixed(3)), 'Nm')
const countOf = (n: number, what: string) => `${n} ${what}${n === 1 ? '' : 's'}`
const why = (reason: string | undefined) => (reason ? ` (${reason})` : '')

/** One event as a sentence for the history. @param first the units that the reader has first */
export function eventText(
  event: Pick<EventEntry, 'kind' | 'data' | 'text'>,
  first: UnitSystem = 'metric',
): string {
  const say: Say = (mm) => showBoth(mm, 3, first)
  return event.text ?? sentence({ kind: event.kind, data: event.data } as unknown as Happened, say)
}

function sentence(e: Happened, say: Say): string {
  switch (e.kind) {
    case 'opened':
      return `${e.data.number} opened: ${e.data.sheet}, ${e.data.boat}`
    case 'note':
      return e.data.text
    case 'stack': {
      const { label, pieces, wasMm, reason } = e.data
      const again = wasMm === undefined ? '' : ` (was ${say(wasMm)}: ${reason ?? ''})`
      return `${label} as found: ${countOf(pieces, 'piece')}, ${say(e.data.mm)}${again}`
    }
    case 'reading':
      return `${e.data.label}: ${figure(say, e.data.mm, e.data.nm)} with ${e.data.gauge}`
    case 'superseded': {
      const { nowMm, nowNm } = e.data
      const now = nowMm === undefined && nowNm === undefined ? '' : `, now ${figure(say, nowMm, nowNm)}`
      return `${e.data.label}: ${figure(say, e.data.mm, e.data.nm)} set aside${now}: ${e.data.reason}`
    }
    case 'trial': {
      const stacks = e.data.stacks.map((s) =>
        s.turned === undefined
          ? `${s.label.toLowerCase()} ${say(s.mm)}`
          : `${s.label.toLowerCase()} ${turnedText(s.turned)}`,
      )
      return `Trial ${e.data.number}: ${stacks.join('; ')}`
    }
    case 'pattern':
      return `${e.data.label}: pattern of the ${e.data.flank} flank marked at place ${e.data.place}${e.data.later ? ', after the build was accepted' : ''}${why(e.data.reason)}`
    case 'accepted': {
      const name = e.data.number === 0 ? 'as found' : `trial ${e.data.number}`
      return `Accepted as built: ${name}${e.data.signed ? ', signed with the code of the name' : ''}${why(e.data.reason)}`
    }
    case 'step':
      return e.data.reason
        ? `${e.data.what}: closed although not everything held${why(e.data.reason)}`
        : `${e.data.what}: done`
    case 'withdrawn':
      return `${e.data.number === 0 ? 'As found' : `Trial ${e.data.number}`}: acceptance withdrawn${why(e.data.reason)}`
    case 'attempt':
      return `${e.data.what}: an attempt that does not count. ${e.data.why.join(' ')}`
    case 'step-corrected': {
      const with_ = e.data.later ? `; ${e.data.later} that stood on it to be done again` : ''
      const when = e.data.over ? ' after it was over' : ''
      return `${e.data.what}: corrected${when}${why(e.data.reason)}${with_}`
    }
    case 'corrected': {
      const all = e.data.changes.map((c) => `${c.field} was ${c.was || 'not known'}, is ${c.now}`)
      return `${all.join('; ')}${why(e.data.reason)}`
    }
    case 'step-back': {
      const with_ = e.data.later ? `, with ${e.data.later} later steps` : ''
      return `${e.data.what}: taken back${with_}${why(e.data.reason)}`
    }
    case 'step-undone':
      return `${e.data.what}: undone since${why(e.data.reason)}`
    case 'line-accepted':
      return `Accepted as it is: ${e.data.line}${why(e.data.reason)}`
    case 'scope':
      return `Scope: ${e.data.label}; ${e.data.off} parts come off, about ${e.data.hours.toFixed(1)} h${why(e.data.reason)}`
    case 'open-item':
      return e.data.how ? `Open item settled: ${e.data.text} (${e.data.how})` : `Open item: ${e.data.text}`
    case 'loop': {
      const again = e.data.again ? `; ${e.data.again} steps to be done again` : ''
      return `Repair ${e.data.number} opened for ${e.data.why}: ${e.data.parts.join(', ') || 'its place to be found first'} (${e.data.note})${again}`
    }
    case 'case':
      return `Other case of the unit: ${e.data.number}, ${e.data.sheet}`
    case 'moved':
      return `The job now uses the sheet of ${e.data.now} instead of ${e.data.was}${why(e.data.reason)}`
    case 'agreed':
      return `${e.data.what}: the lead agrees to go on${why(e.data.reason)}`
    case 'route-seen':
      return `The route of a newer Moray was looked at: ${e.data.added} steps new, ${e.data.changed} changed, ${e.data.removed} gone`
    case 'row-off':
      return `${e.data.name} off, into the row${why(e.data.orientation)}`
    case 'row-order':
      return 'The row was put into another order'
    case 'row':
      return rowSentence(e.data)
    case 'grade': {
      const { part, grade, against, reason, also } = e.data
      const departs = against ? `, against the proposed "${against}"` : ''
      return `${part}: ${grade}${departs} (${reason})${also.length ? `; with it ${also.join(', ')}` : ''}`
    }
    case 'finding':
      return `${e.data.label}: ${{ there: 'found', not: 'not there', unknown: 'not known after all' }[e.data.state]}`
    case 'outcome':
      return `It was: ${e.data.label}`
    case 'estimate':
      return `Estimate: rebuild ${Math.round(e.data.rebuild)}, ${e.data.positions} positions to buy`
    case 'approval':
      return `${e.data.customer} decided: ${e.data.choice}${e.data.ends ? `, ${e.data.ends}` : ''}${e.data.kept ? `, kept: ${e.data.kept.join(', ')}` : ''} (${e.data.how})`
    case 'school':
      return `${e.data.question}: ${e.data.label}, on this job (${e.data.reason})`
    case 'life':
      return lifeSentence(e.data)
    case 'picture':
      return `Picture of ${e.data.of}${e.data.note ? `: ${e.data.note}` : ''}`
    case 'drawer':
      return drawerSentence(e.data, say)
    case 'gauge':
      return gaugeSentence(e.data)
    case 'sheet':
      return sheetSentence(e.data)
    case 'figure':
      return `${e.data.label}: ${e.data.as}, entered at the bench and kept for the sheet`
    case 'edge':
      return `${edgeQuestion(e.data.field, e.data.row, e.data.to)} ${SEEN[e.data.seen]}`
    case 'sheet-adopted':
      return `The job now uses version ${e.data.edition} of its sheet, with ${countOf(e.data.changes, 'change')}${why(e.data.reason)}`
    case 'foreign':
      return `Record ${e.data.number} of another shop brought in: ${e.data.sheet}, ${countOf(e.data.pictures, 'picture')}`
    case 'privacy':
      return `Name of an owner taken out of ${countOf(e.data.jobs, 'job')}${why(e.data.reason)}`
    case 'shop':
      return shopSentence(e.data)
  }
}

function rowSentence({
  act,
  name,
  reason,
  marks,
  renewed,
}: Extract<Happened, { kind: 'row' }>['data']): string {
  switch (act) {
    case 'fit':
      return renewed ? `${name} fitted, a new one` : `${name} fitted`
    case 'unfit':
      return `${name} back in the row: ${reason}`
    case 'leave-out':
      return `${name} stays out: ${reason}`
    case 'remove':
      return `${name} was not off after all: ${reason}`
    case 'mark':
      return `${name} marked: ${marks?.join(', ') || 'nothing new'}`
  }
}

function lifeSentence({ act, reason, stand }: Extract<Happened, { kind: 'life' }>['data']): string {
  switch (act) {
    case 'hold':
      return `Held: ${reason}`
    case 'resume':
      return 'Work resumed'
    case 'stand':
      return stand ? `On ${stand}` : 'On the shelf'
    case 'close':
      return `Closed: ${reason}`
    case 'reopen':
      return `Reopened: ${reason}`
  }
}

const cutText = (cut: PieceCut, say: Say) =>
  cut.kind === 'laminated'
    ? `, layers of ${say(cut.layerMm)} come off down to ${say(cut.minMm)}`
    : `, ground in steps of ${say(cut.stepMm)} down to ${say(cut.minMm)}`

function drawerSentence(d: DrawerChange, say: Say): string {
  switch (d.act) {
    case 'line':
      return `New drawer line ${say(d.mm)}, ${countOf(d.pieces, 'piece')}${d.cut ? cutText(d.cut, say) : ''}`
    case 'add':
      return `${countOf(d.pieces, 'piece')} of ${say(d.mm)} put into the drawer`
    case 'count':
      return `Counted ${d.pieces} of ${say(d.mm)}, was ${d.was}: ${d.reason}`
    case 'thickness':
      return `Thickness of a drawer line corrected from ${say(d.wasMm)} to ${say(d.mm)}: ${d.reason}`
  }
}

const FIGURES: Record<GaugeFigure['figure'], string> = {
  resolution: 'resolution',
  mpe: 'permissible error',
  repeatability: 'repeatability',
  perTurnMm: 'travel for a turn',
  intervalMonths: 'months between calibrations',
  masters: 'masters',
  wrench: 'range and lengths',
}

function gaugeSentence(d: GaugeChange): string {
  switch (d.act) {
    case 'added':
      return `New gauge ${d.name}`
    case 'changed': {
      const changes = d.figures.map((f) => `${FIGURES[f.figure]} ${f.was ?? 'none'}, now ${f.now ?? 'none'}`)
      return `${d.name}: ${changes.join('; ')} (${d.reason})`
    }
    case 'calibrated':
      return `${d.name} calibrated on ${d.on}: ${d.note}`
    case 'retired':
      return `${d.name} takes no more readings: ${d.reason}`
    case 'back':
      return `${d.name} takes readings again: ${d.reason}`
  }
}

const SEEN = { yes: 'Yes.', no: 'No.', 'cannot-tell': 'Could not be told.' }

function sheetSentence(d: SheetChange): string {
  switch (d.act) {
    case 'added':
      return `New drive ${d.name}`
    case 'begun':
      return `${d.name}: a draft of the next version`
    case 'imported':
      return `${d.name}: a sheet from elsewhere, as a draft`
    case 'figure':
      return `${d.name}, ${d.label.toLowerCase()}: ${d.as ?? 'taken out'}`
    case 'row':
      return `${d.name}: ${d.row} ${d.out ? 'taken out' : 'as typed'}`
    case 'rows':
      return `${d.name}: ${countOf(d.rows, 'row')} typed, in ${listName(d.list)}`
    case 'moved':
      return `${d.name}: a row of ${listName(d.list)} moved`
    case 'undone':
      return `${d.name}: a change in ${listName(d.list)} undone`
    case 'list':
      return `${d.name}: ${d.rows} ${d.list} out of a table`
    case 'checked':
      return `${d.name}: ${d.figures} figures held against the own manual`
    case 'published':
      return `${d.name}: version ${d.edition} published${why(d.note)}`
  }
}

function personSentence(was: PersonSaid, now: PersonSaid): string {
  const changes = [
    was.name !== now.name && `is ${now.name} now`,
    was.role !== now.role && `is ${now.role} now`,
    was.retired !== now.retired && (now.retired ? 'works here no more' : 'works here again'),
  ]
  return `${was.name} ${changes.filter(Boolean).join(', ') || 'stays as before'}`
}

function shopSentence(d: ShopChange): string {
  switch (d.about) {
    case 'school':
      return `Shop: ${d.question.toLowerCase()}: ${d.label}`
    case 'rules': {
      const by = d.departuresNeedLead ? 'departures need the lead' : 'departures by whoever works'
      const price =
        d.rate === undefined
          ? 'price of an hour not known'
          : `${[d.rate, d.currency ?? ''].join(' ').trim()} an hour`
      return `Shop rules: ${by}, ${price}`
    }
    case 'likelihood': {
      const to = d.likelihood === undefined ? 'as in the table again' : `${Math.round(d.likelihood * 100)} %`
      return `${d.finding} with ${d.cause}: ${to} (${d.reason})`
    }
    case 'person':
      return `${d.name} works here now, as ${d.role}`
    case 'person-changed':
      return personSentence(d.was, d.now)
    case 'pairing':
      return 'A code for a device was shown'
    case 'device':
      return d.revoked ? `The device ${d.name} is let in no more` : `The device ${d.name} was let in`
    case 'code':
      return d.set ? `${d.name} has a code now` : `${d.name} has no code any more`
    case 'sealed':
      return `Moray has sealed what stood there: ${d.why}`
    case 'wrong-code':
      return `${d.tries} wrong codes for ${d.name}, on ${d.device}`
    case 'copies':
      return `Copies of the shop go to ${d.folder ?? 'its own folder'}, ${d.nightly ? 'one each night' : 'none by themselves'}`
    case 'left-demo':
      return 'The demo shop was left; an empty one begins'
  }
}
