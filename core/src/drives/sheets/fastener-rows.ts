import type { BenchFacts } from '../bench-facts.ts'
import type { Fastener } from '../fasteners.ts'
import type { ServiceInterval } from '../sheet.ts'

/** Fasteners and service of the demo's drives. All numbers invented. */
type More = Partial<Omit<Fastener, 'id' | 'name' | 'count'>>
const group = (
  id: string,
  name: string,
  count: number,
  min: number,
  max: number,
  more: More = {},
): Fastener => ({
  id,
  name,
  count,
  torqueNm: { min, max },
  ...more,
})
const cross = { order: 'crosswise, from the middle out', stages: [0.5] }
const LOCKER = 'clean and dry, threadlocker'
const SALT = 'thin film of waterproof grease'

/** Groups that follow from what the bench has to know of a drive anyhow: the same windows, said once. */
function known(bench: BenchFacts): Fastener[] {
  const { lockTabs, propeller, leftHand, captive, hidden, pinchScrews } = bench
  return [
    ...(lockTabs
      ? [
          {
            id: 'big-ring',
            name: lockTabs.what,
            count: 1,
            torqueNm: lockTabs.torqueNm,
            ...(leftHand?.what === lockTabs.what ? { hand: 'left' as const } : {}),
            thread: 'M110 × 2',
            treatment: SALT,
            lock: 'tab-washer' as const,
            tabs: lockTabs.tabs,
            tool: 'ring spanner with four lugs',
            held: 'the case on its stand',
            closes: 'Carrier',
          },
        ]
      : []),
    ...(propeller?.kind === 'tabs'
      ? [
          {
            id: 'propeller-nut',
            name: 'Propeller nut',
            count: 1,
            torqueNm: propeller.torqueNm,
            thread: 'M24 × 2',
            treatment: 'splines greased, thread dry',
            lock: 'tab-washer' as const,
            tabs: propeller.tabs,
            held: 'a blade, blocked on wood',
          },
        ]
      : []),
    ...(leftHand && leftHand.what !== lockTabs?.what
      ? [
          {
            id: 'left-hand',
            name: leftHand.what,
            count: 1,
            hand: 'left' as const,
            torqueNm: { min: 90, max: 105 },
            treatment: 'oiled',
          },
        ]
      : []),
    ...(captive
      ? [
          {
            id: 'captive',
            name: captive,
            count: 1,
            torqueNm: { min: 38, max: 45 },
            thread: 'M10 × 1.5',
            treatment: SALT,
            captiveUntil: 'the joint to its other half',
          },
        ]
      : []),
    ...(hidden
      ? [
          {
            id: 'hidden',
            name: 'Bolts out of sight',
            count: hidden.count,
            where: hidden.where,
            hidden: true,
            torqueNm: { min: 30, max: 36 },
            thread: 'M10 × 1.5',
            treatment: SALT,
          },
        ]
      : []),
    ...(pinchScrews
      ? [
          {
            id: 'pinch',
            name: 'Pinch screws',
            count: pinchScrews.count,
            where: pinchScrews.where,
            torqueNm: { min: 5, max: 7 },
            thread: 'M6 × 1',
            treatment: LOCKER,
            lock: 'threadlocker' as const,
          },
        ]
      : []),
  ]
}

/** What every oil-filled case of the scenario has. */
const plugs: Fastener[] = [
  group('drain', 'Drain screw', 1, 6, 8, { thread: 'M10 × 1.25', treatment: 'new gasket', sealed: true }),
  group('vent', 'Vent screw', 1, 6, 8, { thread: 'M10 × 1.25', treatment: 'new gasket', sealed: true }),
]

export const lowerFasteners = (bench: BenchFacts): Fastener[] => [
  ...known(bench),
  group('pinion-nut', 'Pinion nut', 1, 95, 110, {
    thread: 'M14 × 1.5',
    treatment: LOCKER,
    lock: 'threadlocker',
    held: 'the pinion nut, with its socket',
    turned: 'the driveshaft, at its spline',
    tool: 'spline socket',
    adapterMm: 0,
    useOnce: true,
  }),
  group('pump-screws', 'Screws of the water pump', 4, 7, 9, { thread: 'M6 × 1', treatment: SALT, ...cross }),
  group('leg-bolts', 'Bolts to the leg', 5, 38, 45, {
    thread: 'M10 × 1.5',
    treatment: SALT,
    order: 'aft ones first, then crosswise',
    stages: [0.5],
    lengthsMm: [45, 45, 45, 60, 60],
    lock: 'self-locking',
  }),
  group('anode-screws', 'Screws of the anodes', 2, 4, 6, { thread: 'M6 × 1', treatment: 'bare and dry' }),
  group('trim-tab', 'Bolt of the trim tab', 1, 20, 25, {
    thread: 'M8 × 1.25',
    where: 'under the plate',
    treatment: SALT,
  }),
  ...plugs,
]

export const upperFasteners = (bench: BenchFacts): Fastener[] => [
  ...known(bench),
  group('cover-bolts', 'Bolts of the top cover', 8, 22, 27, {
    thread: 'M8 × 1.25',
    treatment: 'oiled',
    ...cross,
    closes: 'Top cover',
  }),
  group('yoke-nut', 'Nut of the input shaft', 1, 130, 150, {
    thread: 'M20 × 1.5',
    treatment: LOCKER,
    lock: 'threadlocker',
    held: 'the yoke, with its holding bar',
    useOnce: true,
  }),
  group('lower-bolts', 'Bolts to the lower', 6, 48, 56, {
    thread: 'M12 × 1.75',
    treatment: SALT,
    ...cross,
    closes: 'Joint to the lower',
  }),
  group('passage-plug', 'Plug of the oil passage', 1, 14, 18, {
    thread: 'M14 × 1.5',
    treatment: 'sealant',
    sealed: true,
  }),
  group('water-cover', 'Screws of the water cover', 4, 9, 11, {
    thread: 'M6 × 1',
    treatment: SALT,
    ...cross,
  }),
  group('dipstick', 'Dipstick screw', 1, 5, 7, {
    thread: 'M12 × 1.5',
    treatment: 'new O-ring',
    sealed: true,
  }),
  ...plugs,
]

export const angleFasteners = (bench: BenchFacts): Fastener[] => [
  ...known(bench),
  group('input-carrier', 'Bolts of the input carrier', 6, 22, 27, {
    thread: 'M8 × 1.25',
    treatment: 'oiled',
    ...cross,
    closes: 'Input carrier',
  }),
  group('carrier-lock', 'Lock screws of the output carrier', 2, 9, 11, {
    thread: 'M6 × 1',
    treatment: LOCKER,
    lock: 'stop-screw',
    where: 'in the notches of the carrier',
  }),
  group('foot', 'Bolts of the foot', 4, 42, 50, { thread: 'M10 × 1.5', treatment: SALT, ...cross }),
  group('coupling', 'Bolts of the coupling', 4, 30, 36, {
    thread: 'M10 × 1.25',
    treatment: LOCKER,
    lock: 'threadlocker',
    useOnce: true,
  }),
  group('breather', 'Breather', 1, 8, 10, { thread: 'M10 × 1', treatment: 'new gasket', sealed: true }),
  ...plugs,
]

export const smallFasteners = (bench: BenchFacts): Fastener[] => [
  ...known(bench),
  group('pin', 'Split pin of the propeller cap', 1, 0.1, 0.2, {
    lock: 'castle-pin',
    useOnce: true,
    treatment: 'new',
  }),
  group('pump-screws', 'Screws of the water pump', 3, 4, 6, {
    thread: 'M5 × 0.8',
    treatment: SALT,
    ...cross,
  }),
  group('leg-bolts', 'Bolts to the leg', 2, 12, 15, {
    thread: 'M8 × 1.25',
    treatment: SALT,
    lock: 'spring-washer',
  }),
  group('bearing-cap', 'Screws of the bearing cap', 2, 7, 9, {
    thread: 'M6 × 1',
    treatment: SALT,
    closes: 'Bearing cap',
  }),
  group('anode-screws', 'Screw of the anode', 1, 3, 4, { thread: 'M5 × 0.8', treatment: 'bare and dry' }),
  group('clamp', 'Clamp screw of the shift rod', 1, 4, 5, {
    thread: 'M5 × 0.8',
    treatment: LOCKER,
    lock: 'threadlocker',
  }),
  ...plugs,
]

export const beltFasteners = (bench: BenchFacts): Fastener[] => [
  ...known(bench),
  group('belt-cover', 'Screws of the belt cover', 8, 5, 7, {
    thread: 'M6 × 1',
    treatment: SALT,
    ...cross,
    closes: 'Belt cover',
  }),
  group('pulley-upper', 'Screws of the upper taper bush', 2, 18, 20, {
    thread: 'M8 × 1.25',
    treatment: 'oiled',
    order: 'in turns, a little each',
  }),
  group('pulley-lower', 'Screws of the lower taper bush', 2, 18, 20, {
    thread: 'M8 × 1.25',
    treatment: 'oiled',
    order: 'in turns, a little each',
  }),
  group('front-cap', 'Screws of the front cap', 4, 9, 11, { thread: 'M6 × 1', treatment: SALT, ...cross }),
  group('rear-cap', 'Screws of the rear cap', 4, 9, 11, {
    thread: 'M6 × 1',
    treatment: SALT,
    ...cross,
    closes: 'Rear cap',
  }),
  group('exit-plug', 'Exit plug of the grease', 1, 4, 5, {
    thread: 'M8 × 1',
    treatment: 'dry',
    sealed: true,
  }),
  group('motor-bolts', 'Bolts to the motor', 4, 38, 45, { thread: 'M10 × 1.5', treatment: SALT, ...cross }),
]

const oil = (months: number, hours: number): ServiceInterval => ({
  id: 'oil',
  what: 'Oil, gaskets of both screws, look at the magnet',
  months,
  hours,
  saltMonths: Math.min(months, 6),
})
export const lowerService: ServiceInterval[] = [
  oil(12, 100),
  { id: 'impeller', what: 'Impeller of the water pump', months: 24, hours: 200, saltMonths: 12 },
  {
    id: 'propeller',
    what: 'Propeller off, splines greased, line looked for',
    months: 6,
    hours: 50,
    saltMonths: 3,
  },
  { id: 'anodes', what: 'Anodes', months: 12, saltMonths: 6 },
  { id: 'pressure', what: 'Pressure test', months: 24, hours: 300 },
]
export const upperService: ServiceInterval[] = [
  oil(12, 150),
  { id: 'joints', what: 'Joints of the input shaft greased', months: 12, hours: 100, saltMonths: 6 },
  { id: 'pressure', what: 'Pressure test', months: 24, hours: 300 },
]
export const angleService: ServiceInterval[] = [
  oil(12, 300),
  { id: 'load', what: 'Bearing load of the output', months: 24, hours: 600 },
]
export const beltService: ServiceInterval[] = [
  { id: 'grease', what: 'Grease until clean grease comes out', months: 6, hours: 100, saltMonths: 3 },
  { id: 'belt', what: 'Belt looked at and tightened', months: 12, hours: 300 },
  { id: 'belt-new', what: 'New belt', months: 60, hours: 1500 },
]
