import type { JobSummary } from '@moray/contract/replies'
import type { RepairWhy } from '@moray/core/route/repair'

/** What has happened on a demo job so far, in order. Lengths in mm. */
export type DemoStep =
  | { do: 'note'; hoursAgo: number; by: string; text: string }
  | { do: 'found'; hoursAgo: number; by: string; stacks: Record<string, string[]> }
  | { do: 'measure'; hoursAgo: number; by: string; gauges: Record<string, string> }
  | { do: 'build'; hoursAgo: number; by: string; stacks: Record<string, number> }
  | { do: 'solve'; hoursAgo: number; by: string }
  | { do: 'accept'; hoursAgo: number; by: string; reason?: string }
  /** The contact of every pair, drawn round where the gauges have it. */
  | { do: 'patterns'; hoursAgo: number; by: string }
  /** Walks the route with a careful hand, from `hoursAgo` to `tillHoursAgo`, up to the step `until` (left open). */
  | {
      do: 'work'
      hoursAgo: number
      tillHoursAgo: number
      by: string
      until: string
      /** Answers that this job has of its own. */
      story?: Record<string, boolean | number | string>
      /** Steps that are gone on from all the same, with the reason. */
      departures?: Record<string, string>
      /** Parts that are not sound: what was seen on them, and a runout where it was measured. */
      seen?: Record<string, { seen: string[]; measured?: string }>
      /** How many parts lie in the row when it is only begun. */
      rowUpTo?: number
      choice?: 'rebuild' | 'exchange' | 'used'
    }
  | { do: 'findings'; hoursAgo: number; by: string; there: string[]; not?: string[] }
  | { do: 'estimate'; hoursAgo: number; by: string }
  | { do: 'outcome'; hoursAgo: number; by: string; cause: string; note: string }
  | {
      do: 'draft'
      hoursAgo: number
      by: string
      step: string
      answers: Record<string, boolean | number | string>
    }
  | {
      do: 'step'
      hoursAgo: number
      by: string
      step: string
      answers: Record<string, boolean | number | string>
    }
  | { do: 'open-item'; hoursAgo: number; by: string; text: string }
  | { do: 'loop'; hoursAgo: number; by: string; why: RepairWhy; targets: string[]; note: string }
  | { do: 'scope'; hoursAgo: number; by: string; usual: string; reason: string }
  | { do: 'take-back'; hoursAgo: number; by: string; step: string; reason: string }

export interface DemoJob {
  id: string
  number: string
  sheetId: string
  serial: string
  boat: string
  owner: string
  water: JobSummary['water']
  hours: number | null
  stand: string | null
  complaint: string
  openedHoursAgo: number
  /** Hidden truth of the case: what each measure reads with the stacks as found, and how far geometry misjudges it. */
  truth?: { reads: Record<string, number>; misjudged: number }
  steps: DemoStep[]
}

const ON_THE_ARM = { 'backlash-forward': 'g05', 'backlash-reverse': 'g05' }

export const demoJobs: DemoJob[] = [
  {
    id: 'lomvi-skarv',
    number: '26-118',
    sheetId: 'lomvi-90',
    serial: 'LV90-20417',
    boat: 'Skarv II',
    owner: 'Mussel farm Indre Våg',
    water: 'salt',
    hours: 1140,
    stand: 'Stand 1',
    complaint: 'New bearings after water in the oil; gears good. Set it up from what was in it.',
    openedHoursAgo: 30,
    steps: [
      { do: 'note', hoursAgo: 30, by: 'runa', text: 'Received. Bearings and seals renewed, gear set kept.' },
      { do: 'findings', hoursAgo: 29, by: 'runa', there: ['milky-oil', 'leak-turning'], not: ['metal'] },
      { do: 'open-item', hoursAgo: 29, by: 'runa', text: 'Plain drain plug where the magnetic one belongs' },
      {
        do: 'work',
        hoursAgo: 29,
        tillHoursAgo: 3,
        by: 'ylva',
        until: 'set-gears',
        story: {
          'drain.colour': 'milky',
          'drain.ml': 560,
        },
        departures: { shims: 'Bagged and named by place; measured when it is set.' },
        seen: { 'forward-taper': { seen: ['rust'] }, 'driveshaft-tapers': { seen: ['rough', 'rust'] } },
      },
    ],
  },
  {
    id: 'lomvi-teist',
    number: '26-121',
    sheetId: 'lomvi-90',
    serial: 'LV90-18822',
    boat: 'Lodden',
    owner: 'Pilot station Ytre Sund',
    water: 'salt',
    hours: 620,
    stand: null,
    complaint: 'Milky oil, a little less than a full case. Fishing line behind the propeller.',
    openedHoursAgo: 5,
    steps: [
      {
        do: 'note',
        hoursAgo: 5,
        by: 'joar',
        text: 'Received with milky oil, 540 ml drained, fuzz on the magnet.',
      },
      {
        do: 'findings',
        hoursAgo: 5,
        by: 'joar',
        there: ['milky-oil', 'fishing-line'],
        not: ['film-shift-shaft'],
      },
      {
        do: 'work',
        hoursAgo: 5,
        tillHoursAgo: 4,
        by: 'joar',
        until: 'leak-found',
        story: { 'drain.colour': 'milky', 'drain.ml': 540, 'drain.metal': 'fuzz', 'in.opened': 'recent' },
      },
      { do: 'step', hoursAgo: 0.1, by: 'joar', step: 'soak', answers: { 'soak.how': 'soaks' } },
    ],
  },
  {
    id: 'alke-lower',
    number: '26-114',
    sheetId: 'alke-2-lower',
    serial: 'A2L-3391',
    boat: 'Havørn',
    owner: 'Volunteer rescue Nordskjær',
    water: 'salt',
    hours: 880,
    stand: 'Stand 2',
    complaint: 'Whine on drive after a strike. New gear set and bearings.',
    openedHoursAgo: 120,
    truth: { reads: { depth: 41.352, 'backlash-forward': 0.74, 'backlash-reverse': 0.52 }, misjudged: 0.08 },
    steps: [
      {
        do: 'note',
        hoursAgo: 120,
        by: 'joar',
        text: 'Received. Gear set renewed as a matched pair, pinion and both gears.',
      },
      { do: 'findings', hoursAgo: 119, by: 'joar', there: ['whine-one-way', 'metal'] },
      {
        do: 'work',
        hoursAgo: 118,
        tillHoursAgo: 54,
        by: 'joar',
        until: 'shims',
        story: { 'in.struck': 'yes', 'strike.propshaft.z0': 0.03, 'drain.metal': 'flakes' },
      },
      {
        do: 'found',
        hoursAgo: 52,
        by: 'joar',
        stacks: { pinion: ['0.45', '0.20'], forward: ['20t', '0.15'], reverse: ['0.70', '0.25'] },
      },
      {
        do: 'work',
        hoursAgo: 52,
        tillHoursAgo: 51,
        by: 'joar',
        until: 'set-gears',
        seen: { pinion: { seen: ['chip'] } },
      },
      { do: 'measure', hoursAgo: 51, by: 'joar', gauges: { depth: 'g08', ...ON_THE_ARM } },
      { do: 'build', hoursAgo: 28, by: 'joar', stacks: { pinion: 0.75, forward: 0.7, reverse: 0.75 } },
      { do: 'measure', hoursAgo: 27, by: 'joar', gauges: { depth: 'g08', ...ON_THE_ARM } },
      { do: 'build', hoursAgo: 4, by: 'joar', stacks: { pinion: 0.8, forward: 0.85, reverse: 0.6 } },
      { do: 'measure', hoursAgo: 3, by: 'joar', gauges: { depth: 'g08', ...ON_THE_ARM } },
    ],
  },
  {
    id: 'havsule-upper',
    number: '26-119',
    sheetId: 'havsule-duo-upper',
    serial: 'HDU-0772',
    boat: 'Blåskjell 4',
    owner: 'Mussel farm Indre Våg',
    water: 'salt',
    hours: 2310,
    stand: 'Stand 3',
    complaint: 'Slipping in reverse. Cone clutch and springs renewed, crush under the cover still to find.',
    openedHoursAgo: 70,
    truth: {
      reads: { 'backlash-upper': 0.19, 'backlash-lower': 0.31, 'bearing:upper-ball': -0.09 },
      misjudged: 0.03,
    },
    steps: [
      { do: 'note', hoursAgo: 70, by: 'ylva', text: 'Received. Oil black, cone glazed.' },
      { do: 'findings', hoursAgo: 70, by: 'ylva', there: ['black-oil', 'chatter'] },
      {
        do: 'work',
        hoursAgo: 69,
        tillHoursAgo: 22,
        by: 'ylva',
        until: 'shims',
        story: { 'drain.colour': 'black', 'found.shift': 'jumps' },
      },
      {
        do: 'found',
        hoursAgo: 20,
        by: 'ylva',
        stacks: {
          upper: ['0.50', '0.40'],
          lower: ['0.60', '0.25'],
          input: ['0.70', '0.20'],
          cover: ['0.50'],
        },
      },
      {
        do: 'work',
        hoursAgo: 20,
        tillHoursAgo: 19,
        by: 'ylva',
        until: 'set-gears',
        seen: { cone: { seen: ['glazed'] } },
      },
      {
        do: 'measure',
        hoursAgo: 19,
        by: 'ylva',
        gauges: { 'backlash-upper': 'g02', 'backlash-lower': 'g02' },
      },
    ],
  },
  {
    id: 'rordrum',
    number: '26-116',
    sheetId: 'rordrum-v',
    serial: 'RV-1180',
    boat: 'Work barge Kai',
    owner: 'Mussel farm Indre Våg',
    water: 'brackish',
    hours: 3050,
    stand: null,
    complaint: 'Oil at the input seal, carriers stiff. Teardown half done, parts on the bench.',
    openedHoursAgo: 96,
    steps: [
      { do: 'note', hoursAgo: 96, by: 'ylva', text: 'Received, 300 of 480 ml drained, clean.' },
      { do: 'findings', hoursAgo: 96, by: 'ylva', there: ['empty-case'], not: ['milky-oil'] },
      {
        do: 'work',
        hoursAgo: 95,
        tillHoursAgo: 27,
        by: 'ylva',
        until: 'loose-metal',
        story: { 'drain.ml': 300 },
        rowUpTo: 9,
      },
      {
        do: 'note',
        hoursAgo: 26,
        by: 'ylva',
        text: 'Output carrier out after penetrant overnight; lock screws in the row.',
      },
    ],
  },
  {
    id: 'teist-bent',
    number: '26-120',
    sheetId: 'teist-6',
    serial: 'T6-55031',
    boat: 'Tender of Lodden',
    owner: 'Pilot station Ytre Sund',
    water: 'salt',
    hours: 210,
    stand: null,
    complaint: 'Hit a rock. Propeller shaft 0.42 mm out at the spline; gear and shaft are one part.',
    openedHoursAgo: 60,
    steps: [
      {
        do: 'note',
        hoursAgo: 44,
        by: 'joar',
        text: 'Propeller shaft bent, 0.42 mm TIR at the spline, limit 0.15 mm.',
      },
      { do: 'findings', hoursAgo: 59, by: 'joar', there: ['vibration', 'runout-high', 'blade-track'] },
      {
        do: 'work',
        hoursAgo: 58,
        tillHoursAgo: 40,
        by: 'joar',
        until: 'approve',
        story: { 'in.struck': 'yes', 'strike.propshaft.z0': 0.42, 'strike.case': 'dented' },
        seen: { 'prop-shaft': { seen: ['bent'], measured: '0.42 mm' } },
      },
      { do: 'estimate', hoursAgo: 39, by: 'joar' },
    ],
  },
  {
    id: 'duo-lower',
    number: '26-109',
    sheetId: 'havsule-duo-lower',
    serial: 'HDL-0772',
    boat: 'Blåskjell 4',
    owner: 'Mussel farm Indre Våg',
    water: 'salt',
    hours: 2310,
    stand: null,
    complaint: 'Seals and bearings with the upper. Tight by itself; waits for its upper to be joined.',
    openedHoursAgo: 200,
    truth: {
      reads: { depth: 33.208, 'backlash-front': 0.212, 'backlash-rear': 0.244, 'inner-end-play': 0.1 },
      misjudged: 0.02,
    },
    steps: [
      { do: 'note', hoursAgo: 200, by: 'joar', text: 'Received with its upper.' },
      { do: 'work', hoursAgo: 199, tillHoursAgo: 152, by: 'joar', until: 'shims' },
      {
        do: 'found',
        hoursAgo: 150,
        by: 'joar',
        stacks: { pinion: ['0.60', '0.20'], front: ['0.80'], rear: ['0.50', '0.30'] },
      },
      {
        do: 'measure',
        hoursAgo: 149,
        by: 'joar',
        gauges: { depth: 'g07', 'backlash-front': 'g04', 'backlash-rear': 'g04', 'inner-end-play': 'g02' },
      },
      { do: 'work', hoursAgo: 149, tillHoursAgo: 148, by: 'joar', until: 'set-gears' },
      { do: 'accept', hoursAgo: 148, by: 'joar' },
      { do: 'work', hoursAgo: 147, tillHoursAgo: 20, by: 'joar', until: 'splines' },
    ],
  },
  {
    id: 'lomvi-done',
    number: '26-097',
    sheetId: 'lomvi-90',
    serial: 'LV90-19960',
    boat: 'Sild',
    owner: 'Volunteer rescue Nordskjær',
    water: 'salt',
    hours: 540,
    stand: null,
    complaint: 'Jumped out of forward. Clutch dog and forward gear set renewed.',
    openedHoursAgo: 720,
    truth: { reads: { depth: 38.297, 'backlash-forward': 0.31, 'backlash-reverse': 0.93 }, misjudged: 0.04 },
    steps: [
      {
        do: 'note',
        hoursAgo: 720,
        by: 'runa',
        text: 'Received. Dog lugs rounded, forward gear windows too.',
      },
      { do: 'findings', hoursAgo: 719, by: 'runa', there: ['jumps-out'], not: ['no-shift'] },
      {
        do: 'work',
        hoursAgo: 718,
        tillHoursAgo: 641,
        by: 'ylva',
        until: 'shims',
        story: { 'found.shift': 'jumps' },
      },
      {
        do: 'found',
        hoursAgo: 640,
        by: 'ylva',
        stacks: { pinion: ['0.50', '0.15'], forward: ['0.70', '0.20'], reverse: ['17t', '0.15'] },
      },
      {
        do: 'work',
        hoursAgo: 640,
        tillHoursAgo: 639,
        by: 'ylva',
        until: 'set-gears',
        seen: { 'clutch-dog': { seen: ['rounded'] }, 'forward-gear': { seen: ['windows'] } },
      },
      { do: 'measure', hoursAgo: 639, by: 'ylva', gauges: { depth: 'g01', ...ON_THE_ARM } },
      { do: 'solve', hoursAgo: 638, by: 'ylva' },
      { do: 'measure', hoursAgo: 634, by: 'ylva', gauges: { depth: 'g01', ...ON_THE_ARM } },
      { do: 'patterns', hoursAgo: 633.5, by: 'ylva' },
      { do: 'accept', hoursAgo: 633, by: 'ylva' },
      { do: 'work', hoursAgo: 632, tillHoursAgo: 601, by: 'ylva', until: '' },
      {
        do: 'outcome',
        hoursAgo: 601,
        by: 'ylva',
        cause: 'dog-rounded',
        note: 'Lugs and windows rounded together.',
      },
      { do: 'note', hoursAgo: 600, by: 'runa', text: 'Handed over with its record.' },
    ],
  },
  {
    id: 'alke-upper',
    number: '26-088',
    sheetId: 'alke-2-upper',
    serial: 'A2U-3391',
    boat: 'Havørn',
    owner: 'Volunteer rescue Nordskjær',
    water: 'salt',
    hours: 880,
    stand: null,
    complaint: 'Back after three weeks: a lip seal at the input weeps.',
    openedHoursAgo: 900,
    truth: { reads: { backlash: 0.252 }, misjudged: 0.03 },
    steps: [
      { do: 'note', hoursAgo: 900, by: 'runa', text: 'Received for seals.' },
      { do: 'work', hoursAgo: 899, tillHoursAgo: 862, by: 'joar', until: 'shims' },
      { do: 'found', hoursAgo: 860, by: 'joar', stacks: { input: ['0.60', '0.30'], cover: ['0.45'] } },
      { do: 'measure', hoursAgo: 859, by: 'joar', gauges: { backlash: 'g02' } },
      { do: 'work', hoursAgo: 859, tillHoursAgo: 858, by: 'joar', until: 'set-gears' },
      { do: 'accept', hoursAgo: 858, by: 'joar' },
      { do: 'work', hoursAgo: 857, tillHoursAgo: 700, by: 'joar', until: '' },
      {
        do: 'note',
        hoursAgo: 48,
        by: 'runa',
        text: 'Came back: the input lip seal weeps, land to be looked at.',
      },
      {
        do: 'loop',
        hoursAgo: 47,
        by: 'runa',
        why: 'leak',
        targets: ['input-seal'],
        note: 'the input lip seal weeps after three weeks',
      },
    ],
  },
  {
    id: 'sivkrok',
    number: '26-122',
    sheetId: 'sivkrok-b',
    serial: 'SB-0041',
    boat: 'Harbour float Ærfugl',
    owner: 'Strandvik Boat Pool, own fleet',
    water: 'fresh',
    hours: 90,
    stand: null,
    complaint: 'Rear seals and grease, yearly.',
    openedHoursAgo: 3,
    steps: [
      { do: 'note', hoursAgo: 3, by: 'ylva', text: 'Received for its yearly service.' },
      { do: 'scope', hoursAgo: 3, by: 'ylva', usual: 'seals:propshaft', reason: 'Rear seals and grease' },
    ],
  },
  {
    id: 'alke-cool',
    number: '26-112',
    sheetId: 'alke-2-lower',
    serial: 'A2L-2817',
    boat: 'Tangsprell',
    owner: 'Mussel farm Indre Våg',
    water: 'brackish',
    hours: 760,
    stand: null,
    complaint: 'Seals and a corroded carrier. The gauge fell overnight; it was the cold.',
    openedHoursAgo: 160,
    truth: { reads: { depth: 41.198, 'backlash-forward': 0.508, 'backlash-reverse': 0.79 }, misjudged: 0.02 },
    steps: [
      { do: 'findings', hoursAgo: 160, by: 'joar', there: ['leak-still', 'film-hub'] },
      { do: 'work', hoursAgo: 159, tillHoursAgo: 100, by: 'joar', until: 'shims' },
      {
        do: 'found',
        hoursAgo: 99,
        by: 'joar',
        stacks: { pinion: ['0.50', '0.25'], forward: ['0.80'], reverse: ['0.45', '0.30'] },
      },
      {
        do: 'work',
        hoursAgo: 98,
        tillHoursAgo: 80,
        by: 'joar',
        until: 'set-gears',
        seen: { carrier: { seen: ['scored'] } },
      },
      { do: 'measure', hoursAgo: 79, by: 'joar', gauges: { depth: 'g08', ...ON_THE_ARM } },
      { do: 'accept', hoursAgo: 78, by: 'joar' },
      {
        do: 'work',
        hoursAgo: 77,
        tillHoursAgo: 14,
        by: 'joar',
        until: 'splines',
        story: {
          'leak-case.start': 80,
          'leak-case.start-c': 21,
          'leak-case.end': 76,
          'leak-case.end-c': 14,
          'leak-case.minutes': 120,
        },
      },
      { do: 'outcome', hoursAgo: 14, by: 'joar', cause: 'carrier-o-ring', note: 'Groove corroded, dressed.' },
    ],
  },
  {
    id: 'lomvi-test',
    number: '26-117',
    sheetId: 'lomvi-90',
    serial: 'LV90-20008',
    boat: 'Krykkje',
    owner: 'Volunteer rescue Nordskjær',
    water: 'salt',
    hours: 430,
    stand: null,
    complaint: 'Shift shaft wept. Seals renewed, closed, on the tester.',
    openedHoursAgo: 60,
    truth: { reads: { depth: 38.402, 'backlash-forward': 0.468, 'backlash-reverse': 0.71 }, misjudged: 0.02 },
    steps: [
      {
        do: 'findings',
        hoursAgo: 60,
        by: 'ylva',
        there: ['film-shift-shaft', 'empty-case'],
        not: ['milky-oil'],
      },
      { do: 'work', hoursAgo: 59, tillHoursAgo: 31, by: 'ylva', until: 'shims' },
      {
        do: 'found',
        hoursAgo: 30,
        by: 'ylva',
        stacks: { pinion: ['0.50', '0.20'], forward: ['0.55', '0.20'], reverse: ['17t', '0.40'] },
      },
      {
        do: 'work',
        hoursAgo: 29,
        tillHoursAgo: 26,
        by: 'ylva',
        until: 'set-gears',
        seen: { 'shift-rod': { seen: ['bent'] } },
      },
      { do: 'measure', hoursAgo: 25, by: 'ylva', gauges: { depth: 'g01', ...ON_THE_ARM } },
      { do: 'accept', hoursAgo: 24, by: 'ylva' },
      { do: 'work', hoursAgo: 23, tillHoursAgo: 1, by: 'ylva', until: 'leak-case' },
      {
        do: 'draft',
        hoursAgo: 0.4,
        by: 'ylva',
        step: 'leak-case',
        answers: {
          'leak-case.blocks-on': 'p1 p2',
          'leak-case.start': '70 kPa',
          'leak-case.start-c': '18 C',
        },
      },
      { do: 'outcome', hoursAgo: 1, by: 'ylva', cause: 'shift-seal', note: 'Rubber had lost its spring.' },
    ],
  },
]

/** Jobs that are the two cases of one unit, the leading one first. */
export const demoUnits: [string, string][] = [['duo-lower', 'havsule-upper']]
