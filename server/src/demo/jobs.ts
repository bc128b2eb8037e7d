import type { JobState, JobSummary } from '@moray/contract/replies'

/** What has happened on a demo job so far, in order. Lengths in mm. */
export type DemoStep =
  | { do: 'note'; hoursAgo: number; by: string; text: string }
  | { do: 'found'; hoursAgo: number; by: string; stacks: Record<string, string[]> }
  | { do: 'measure'; hoursAgo: number; by: string; gauges: Record<string, string> }
  | { do: 'build'; hoursAgo: number; by: string; stacks: Record<string, number> }
  | { do: 'solve'; hoursAgo: number; by: string }
  | { do: 'accept'; hoursAgo: number; by: string; reason?: string }

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
  /** Where the job stands in the end, when the setting does not say so itself. */
  stands?: { state: JobState; stage: string; waitsFor: string }
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
    ],
    stands: { state: 'setting', stage: 'Setting', waitsFor: 'Enter pinion shims as found' },
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
    ],
    stands: { state: 'received', stage: 'Receiving', waitsFor: 'Leak test as found' },
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
      {
        do: 'found',
        hoursAgo: 52,
        by: 'joar',
        stacks: { pinion: ['0.45', '0.20'], forward: ['20t', '0.15'], reverse: ['0.70', '0.25'] },
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
    truth: { reads: { 'backlash-upper': 0.19, 'backlash-lower': 0.31 }, misjudged: 0.03 },
    steps: [
      { do: 'note', hoursAgo: 70, by: 'ylva', text: 'Received. Oil black, cone glazed.' },
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
    complaint: 'Oil at the input seal, carriers stiff. Teardown half done, tray on the bench.',
    openedHoursAgo: 96,
    steps: [
      { do: 'note', hoursAgo: 96, by: 'ylva', text: 'Received, 300 of 480 ml drained, clean.' },
      {
        do: 'note',
        hoursAgo: 26,
        by: 'ylva',
        text: 'Output carrier out after penetrant overnight; lock screws on the tray.',
      },
    ],
    stands: { state: 'teardown', stage: 'Teardown', waitsFor: 'Draw the input carrier' },
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
    ],
    stands: { state: 'waiting', stage: 'Estimate', waitsFor: 'Owner decides: rebuild or exchange' },
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
    complaint: 'Seals and bearings with the upper. Joined, second leak test to do.',
    openedHoursAgo: 200,
    truth: {
      reads: { depth: 33.208, 'backlash-front': 0.212, 'backlash-rear': 0.244, 'inner-end-play': 0.1 },
      misjudged: 0.02,
    },
    steps: [
      { do: 'note', hoursAgo: 200, by: 'joar', text: 'Received with its upper.' },
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
      { do: 'accept', hoursAgo: 148, by: 'joar' },
    ],
    stands: { state: 'waiting', stage: 'Joining', waitsFor: 'Second leak test, before any oil' },
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
      {
        do: 'found',
        hoursAgo: 640,
        by: 'ylva',
        stacks: { pinion: ['0.50', '0.15'], forward: ['0.70', '0.20'], reverse: ['16t', '0.15'] },
      },
      { do: 'measure', hoursAgo: 639, by: 'ylva', gauges: { depth: 'g01', ...ON_THE_ARM } },
      { do: 'solve', hoursAgo: 638, by: 'ylva' },
      { do: 'measure', hoursAgo: 634, by: 'ylva', gauges: { depth: 'g01', ...ON_THE_ARM } },
      { do: 'accept', hoursAgo: 633, by: 'ylva' },
      { do: 'note', hoursAgo: 600, by: 'runa', text: 'Handed over with its record.' },
    ],
    stands: { state: 'finished', stage: 'Handed over', waitsFor: 'Nothing: finished' },
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
      { do: 'found', hoursAgo: 860, by: 'joar', stacks: { input: ['0.60', '0.30'], cover: ['0.45'] } },
      { do: 'measure', hoursAgo: 859, by: 'joar', gauges: { backlash: 'g02' } },
      { do: 'accept', hoursAgo: 858, by: 'joar' },
      {
        do: 'note',
        hoursAgo: 48,
        by: 'runa',
        text: 'Reopened: the input lip seal weeps, land to be looked at.',
      },
    ],
    stands: { state: 'reopened', stage: 'Receiving', waitsFor: 'Find the leak at the input seal' },
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
    steps: [{ do: 'note', hoursAgo: 3, by: 'ylva', text: 'Received for its yearly service.' }],
    stands: { state: 'received', stage: 'Receiving', waitsFor: 'Measure propeller shaft end play' },
  },
]
