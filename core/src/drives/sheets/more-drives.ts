import type { BenchFacts } from '../bench-facts.ts'
import type { BodyBench } from '../own/body.ts'
import { filled } from '../own/fill.ts'
import type { DriveSheet } from '../sheet.ts'
import { lowerFurther, upperFurther } from './further-rows.ts'
import { havhestBench, tjeldBench } from './bench-rows.ts'
import { lowerService, smallFasteners, upperFasteners, upperService } from './fastener-rows.ts'
import { havhestParts, tjeldParts } from './other-parts.ts'

/** Bench facts as a body says them: what is not there is not said. */
const saidOf = (facts: BenchFacts): BodyBench =>
  Object.fromEntries(
    Object.entries(facts).flatMap(([name, v]) =>
      v === null
        ? []
        : [
            [
              name,
              name === 'joins'
                ? Object.fromEntries(Object.entries(v as object).filter(([, x]) => x !== null))
                : v,
            ],
          ],
    ),
  )

/** Sheets written as a technician's own are: figures, and the drawing laid out by itself. */

const tjeldTurning = { pinionHand: 'right', pinionTurns: 'clockwise' } as const
const tjeldMesh = {
  pinionTeeth: 12,
  gearTeeth: 26,
  moduleMm: 2.8,
  faceWidthMm: 11,
  pressureAngleDeg: 20,
  spiralAngleDeg: 33,
  cutterRadiusMm: 31,
}
const tjeldArm = {
  kind: 'backlash' as const,
  member: 'pinion' as const,
  radiusMm: 28,
  hold: 'Shift rod in neutral. Pull the propeller shaft against this gear with the fixture and hold the gear itself; rock the driveshaft, pulled up lightly.',
  load: 'outward' as const,
  readings: 3,
  before: ['Arm square to the indicator', 'Driveshaft pulled up lightly'],
}
const tjeldStack = { kind: 'shim' as const, effect: -1 as const, minMm: 0.1, maxMm: 1.2, maxPieces: 4 }

export const tjeld8: DriveSheet = filled({
  format: 3,
  id: 'tjeld-8',
  version: 3,
  name: 'Tjeld 8',
  family: 'outboard-fnr',
  demo: true,
  summary:
    'Small shifting outboard: split pin at the propeller, shift rod in a clamp, bushing of the shift shaft.',
  ratio: {
    overall: '2.17 : 1',
    stamps: [
      { code: 'TJ12', teeth: '12 : 26', note: 'this sheet', own: true },
      { code: 'TJ13', teeth: '13 : 26', note: 'bolts on as well, but is the wrong ratio' },
    ],
  },
  oilCapacityMl: 230,
  axes: [
    { id: 'driveshaft', label: 'Driveshaft', line: 'vertical' },
    { id: 'propshaft', label: 'Propeller shaft', line: 'horizontal' },
  ],
  gears: [
    { id: 'pinion', label: 'Pinion', teeth: 12, axis: 'driveshaft', side: 1 },
    { id: 'forward-gear', label: 'Forward gear', teeth: 26, axis: 'propshaft', side: -1 },
    { id: 'reverse-gear', label: 'Reverse gear', teeth: 26, axis: 'propshaft', side: 1 },
  ],
  meshes: [
    {
      id: 'forward',
      label: 'Forward mesh',
      pinion: 'pinion',
      gear: 'forward-gear',
      mesh: tjeldMesh,
      ...tjeldTurning,
    },
    {
      id: 'reverse',
      label: 'Reverse mesh',
      pinion: 'pinion',
      gear: 'reverse-gear',
      mesh: tjeldMesh,
      ...tjeldTurning,
    },
  ],
  adjusters: [
    { ...tjeldStack, id: 'pinion', label: 'Pinion shims', axis: 'driveshaft', moves: 'pinion', startMm: 0.5 },
    {
      ...tjeldStack,
      id: 'forward',
      label: 'Forward shims',
      axis: 'propshaft',
      moves: 'forward-gear',
      startMm: 0.5,
    },
    {
      ...tjeldStack,
      id: 'reverse',
      label: 'Reverse thrust shims',
      axis: 'propshaft',
      moves: 'reverse-gear',
      startMm: 0.6,
    },
  ],
  bearings: [
    { id: 'driveshaft-lower', label: 'Driveshaft ball', kind: 'ball', axis: 'driveshaft' },
    { id: 'driveshaft-upper', label: 'Driveshaft bush', kind: 'needle', axis: 'driveshaft' },
    { id: 'forward-taper', label: 'Forward gear taper', kind: 'taper', axis: 'propshaft', side: -1 },
    { id: 'reverse-ball', label: 'Reverse gear ball', kind: 'ball', axis: 'propshaft', side: 1 },
    { id: 'carrier-needle', label: 'Carrier bush', kind: 'needle', axis: 'propshaft', side: 1 },
  ],
  seals: [
    { id: 'pump', label: 'Water pump seal', axis: 'driveshaft' },
    { id: 'propshaft', label: 'Propeller shaft seals', axis: 'propshaft', side: 1 },
  ],
  measures: [
    {
      id: 'depth',
      label: 'Pinion depth',
      kind: 'depth',
      gear: 'pinion',
      how: { method: 'feeler-block', nominalClearanceMm: 0.5, nominalDepthMm: 26.4 },
      window: { min: 26.36, max: 26.44 },
      target: 26.4,
      readings: 3,
      before: ['Block on its seat in the case', 'Pinion nut at its final torque'],
    },
    {
      ...tjeldArm,
      id: 'backlash-forward',
      label: 'Forward backlash',
      mesh: 'forward',
      window: { min: 0.2, max: 0.34 },
      target: 0.27,
    },
    {
      ...tjeldArm,
      id: 'backlash-reverse',
      label: 'Reverse backlash',
      mesh: 'reverse',
      window: { min: 0.3, max: 0.55 },
      target: 0.425,
    },
  ],
  runoutLimits: [
    { zone: 'Seal land', tirMm: 0.05 },
    { zone: 'Bearing journal', tirMm: 0.03 },
    { zone: 'Propeller spline', tirMm: 0.15 },
  ],
  parts: tjeldParts,
  bench: saidOf(tjeldBench),
  fasteners: smallFasteners(tjeldBench),
  service: lowerService,
  further: lowerFurther({ pin: true }),
})

const havhestTurning = { pinionHand: 'left', pinionTurns: 'clockwise' } as const
const havhestMesh = {
  pinionTeeth: 20,
  gearTeeth: 25,
  moduleMm: 4.4,
  faceWidthMm: 18,
  pressureAngleDeg: 20,
  spiralAngleDeg: 30,
  cutterRadiusMm: 55,
}
const atTheYoke = {
  kind: 'backlash' as const,
  member: 'pinion' as const,
  radiusMm: 50,
  readings: 3,
  before: ['Input nut at its final torque', 'Arm square to the indicator', 'Cone clutch off both gears'],
}
const havhestStack = { kind: 'shim' as const, minMm: 0.2, maxMm: 1.8, maxPieces: 4 }

export const havhestUpper: DriveSheet = filled({
  format: 3,
  id: 'havhest-r-upper',
  version: 3,
  name: 'Havhest R upper',
  family: 'stern-upper-reversing',
  demo: true,
  summary:
    'Reversing upper: the vertical shaft hangs on a left-hand top nut, a thin threaded ring holds the input; its bearing is shimmed by float.',
  ratio: {
    overall: '1.25 : 1',
    stamps: [
      { code: 'HR20', teeth: '20 : 25', note: 'this sheet', own: true },
      { code: 'HR22', teeth: '22 : 25', note: 'look-alike, wrong ratio' },
    ],
  },
  oilCapacityMl: 1050,
  axes: [
    { id: 'input', label: 'Input shaft', line: 'horizontal' },
    { id: 'vertical', label: 'Vertical shaft', line: 'vertical' },
  ],
  gears: [
    { id: 'input-gear', label: 'Input gear', teeth: 20, axis: 'input', side: -1 },
    { id: 'upper-gear', label: 'Upper gear', teeth: 25, axis: 'vertical', side: 1 },
    { id: 'lower-gear', label: 'Lower gear', teeth: 25, axis: 'vertical', side: -1 },
  ],
  meshes: [
    {
      id: 'upper',
      label: 'Upper mesh',
      pinion: 'input-gear',
      gear: 'upper-gear',
      mesh: havhestMesh,
      ...havhestTurning,
    },
    {
      id: 'lower',
      label: 'Lower mesh',
      pinion: 'input-gear',
      gear: 'lower-gear',
      mesh: havhestMesh,
      ...havhestTurning,
    },
  ],
  adjusters: [
    {
      ...havhestStack,
      id: 'upper',
      label: 'Upper gear shims',
      axis: 'vertical',
      moves: 'upper-gear',
      effect: 1,
      startMm: 0.9,
    },
    {
      ...havhestStack,
      id: 'lower',
      label: 'Lower gear shims',
      axis: 'vertical',
      moves: 'lower-gear',
      effect: -1,
      startMm: 0.9,
    },
    {
      ...havhestStack,
      id: 'input',
      label: 'Input shims',
      axis: 'input',
      moves: 'input-gear',
      effect: -1,
      startMm: 0.9,
      setBy: 'case-and-gear',
    },
    {
      ...havhestStack,
      id: 'top',
      label: 'Top bearing shims',
      axis: 'vertical',
      minMm: 0.1,
      maxMm: 1.5,
      effect: 1,
      startMm: 0.6,
      setBy: 'crush',
      side: 1,
      order: 15,
    },
    {
      ...havhestStack,
      id: 'preload',
      label: 'Input preload shims',
      axis: 'input',
      minMm: 0.2,
      maxMm: 1.6,
      effect: 1,
      startMm: 0.8,
      setBy: 'preload',
    },
  ],
  bearings: [
    {
      id: 'input-inner',
      label: 'Input taper, inner',
      kind: 'taper',
      axis: 'input',
      setting: { kind: 'rolling-torque', newNm: { min: 0.6, max: 1 }, by: 'preload', nmPerMm: -8 },
    },
    { id: 'input-outer', label: 'Input taper, outer', kind: 'taper', axis: 'input' },
    {
      id: 'top-ball',
      label: 'Top bearing',
      kind: 'ball',
      axis: 'vertical',
      side: 1,
      setting: { kind: 'crush', crushMm: 0.05, shimsAt: 'bearing' },
    },
    { id: 'lower-taper', label: 'Lower gear bearing', kind: 'taper', axis: 'vertical', side: -1 },
  ],
  seals: [
    { id: 'input', label: 'Input seal', axis: 'input' },
    { id: 'vertical', label: 'Vertical shaft seal', axis: 'vertical', side: -1 },
  ],
  measures: [
    {
      ...atTheYoke,
      id: 'backlash-upper',
      label: 'Upper gear backlash',
      mesh: 'upper',
      hold: 'Hold the upper gear up against its bearing, lower gear free.',
      load: 'outward' as const,
      window: { min: 0.18, max: 0.3 },
      target: 0.24,
    },
    {
      ...atTheYoke,
      id: 'backlash-lower',
      label: 'Lower gear backlash',
      mesh: 'lower',
      hold: 'Hold the lower gear down onto its bearing, upper gear free.',
      load: 'outward' as const,
      window: { min: 0.18, max: 0.3 },
      target: 0.24,
    },
  ],
  runoutLimits: [
    { zone: 'Seal land', tirMm: 0.05 },
    { zone: 'Bearing journal', tirMm: 0.03 },
  ],
  parts: havhestParts,
  bench: saidOf(havhestBench),
  fasteners: upperFasteners(havhestBench),
  service: upperService,
  further: upperFurther(),
})
