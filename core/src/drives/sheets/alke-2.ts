import type { DriveSheet } from '../sheet.ts'
import { lowerFurther, upperFurther } from './further-rows.ts'
import { alke2UpperParts } from './other-parts.ts'
import { shiftingLowerParts } from './lower-parts.ts'
import { alke2LowerBench, alke2UpperBench } from './bench-rows.ts'
import { lowerFasteners, lowerService, upperFasteners, upperService } from './fastener-rows.ts'

const upperMesh = {
  pinionTeeth: 21,
  gearTeeth: 24,
  moduleMm: 4.6,
  faceWidthMm: 20,
  pressureAngleDeg: 20,
  spiralAngleDeg: 30,
  cutterRadiusMm: 57,
}
/** The engine turns the input gear clockwise, the input gear the driveshaft the other way. */
const upperTurning = { pinionHand: 'right', pinionTurns: 'clockwise' } as const
const lowerTurning = { pinionHand: 'left', pinionTurns: 'anticlockwise' } as const
const lowerMesh = {
  pinionTeeth: 14,
  gearTeeth: 27,
  moduleMm: 4.6,
  faceWidthMm: 19,
  pressureAngleDeg: 20,
  spiralAngleDeg: 35,
  cutterRadiusMm: 54.4,
}

const runoutLimits = [
  { zone: 'Seal land', tirMm: 0.05 },
  { zone: 'Bearing journal', tirMm: 0.03 },
]
const propellerSpline = { zone: 'Propeller spline', tirMm: 0.15 }

const stamps = [
  { code: 'A21/14', teeth: '21 : 24 over 14 : 27', note: 'this pair of sheets', own: true },
  { code: 'A21/15', teeth: '21 : 24 over 15 : 27', note: 'look-alike lower, wrong ratio' },
  { code: 'A21/13', teeth: '21 : 24 over 13 : 28', note: 'look-alike lower, wrong ratio' },
]

export const alke2Upper: DriveSheet = {
  id: 'alke-2-upper',
  version: 7,
  name: 'Alke 2 upper',
  family: 'stern-upper',
  demo: true,
  summary:
    'Sterndrive upper case: input gear drives the vertical gear; shims at the input, top cover with crush.',
  ratio: { overall: '1.14 : 1, with its lower 2.20 : 1', stamps },
  oilCapacityMl: 900,
  axes: [
    { id: 'input', label: 'Input shaft', line: 'horizontal', fromMm: -196, toMm: -36, radiusMm: 13 },
    { id: 'vertical', label: 'Vertical shaft', line: 'vertical', fromMm: -152, toMm: 64, radiusMm: 13 },
  ],
  gears: [
    { id: 'input-gear', label: 'Input gear', teeth: 21, axis: 'input', side: -1 },
    { id: 'vertical-gear', label: 'Vertical gear', teeth: 24, axis: 'vertical', side: -1 },
  ],
  meshes: [
    {
      id: 'main',
      label: 'Upper mesh',
      pinion: 'input-gear',
      gear: 'vertical-gear',
      mesh: upperMesh,
      ...upperTurning,
    },
  ],
  adjusters: [
    {
      id: 'input',
      label: 'Input shims',
      kind: 'shim',
      axis: 'input',
      atMm: -82,
      moves: 'input-gear',
      effect: -1,
      minMm: 0.2,
      maxMm: 1.8,
      maxPieces: 4,
      startMm: 0.9,
    },
    {
      id: 'cover',
      label: 'Cover shims',
      kind: 'shim',
      axis: 'vertical',
      atMm: 52,
      effect: 1,
      minMm: 0.1,
      maxMm: 1.2,
      maxPieces: 4,
      startMm: 0.5,
      setBy: 'crush',
    },
  ],
  bearings: [
    {
      id: 'input-inner',
      label: 'Input taper, inner',
      kind: 'taper',
      axis: 'input',
      atMm: -96,
      setting: { kind: 'rolling-torque', newNm: { min: 0.9, max: 1.3 }, sleeve: true },
    },
    { id: 'input-outer', label: 'Input taper, outer', kind: 'taper', axis: 'input', atMm: -128 },
    {
      id: 'top',
      label: 'Top cover bearing',
      kind: 'taper',
      axis: 'vertical',
      atMm: 38,
      setting: { kind: 'crush', crushMm: 0.05, shimsAt: 'bearing' },
    },
    { id: 'vertical-lower', label: 'Vertical taper, lower', kind: 'taper', axis: 'vertical', atMm: -92 },
  ],
  seals: [
    { id: 'input', label: 'Input seal', axis: 'input', atMm: -152 },
    { id: 'vertical', label: 'Vertical shaft seal', axis: 'vertical', atMm: -124 },
  ],
  measures: [
    {
      id: 'backlash',
      label: 'Backlash at the yoke',
      kind: 'backlash',
      mesh: 'main',
      member: 'pinion',
      radiusMm: 52,
      hold: 'Hold the vertical shaft still.',
      window: { min: 0.2, max: 0.3 },
      target: 0.25,
      readings: 3,
      before: ['Input nut at its final torque', 'Retainer drawn down evenly'],
    },
  ],
  runoutLimits,
  parts: alke2UpperParts,
  bench: alke2UpperBench,
  fasteners: upperFasteners(alke2UpperBench),
  service: upperService,
  further: upperFurther('alke-2-lower'),
}

const onTheArm = {
  kind: 'backlash' as const,
  member: 'pinion' as const,
  radiusMm: 40,
  hold: 'Clutch in neutral. Load this gear onto its own bearing (pull or push the propeller shaft with the fixture) and hold the gear itself still; rock the driveshaft. With the clutch engaged you would read the play of its dogs.',
  load: 'outward' as const,
  readings: 3,
  before: ['Pinion nut at its final torque', 'Arm square to the indicator'],
}

export const alke2Lower: DriveSheet = {
  id: 'alke-2-lower',
  version: 7,
  name: 'Alke 2 lower',
  family: 'stern-lower-fnr',
  demo: true,
  summary: 'Sterndrive lower with forward and reverse gear; pinion depth by feeler to a block.',
  ratio: { overall: '1.93 : 1, with its upper 2.20 : 1', stamps },
  oilCapacityMl: 700,
  axes: [
    { id: 'driveshaft', label: 'Vertical shaft', line: 'vertical', fromMm: 38, toMm: 176, radiusMm: 12 },
    { id: 'propshaft', label: 'Propeller shaft', line: 'horizontal', fromMm: -80, toMm: 236, radiusMm: 13 },
  ],
  gears: [
    { id: 'pinion', label: 'Pinion', teeth: 14, axis: 'driveshaft', side: 1 },
    { id: 'forward-gear', label: 'Forward gear', teeth: 27, axis: 'propshaft', side: -1 },
    { id: 'reverse-gear', label: 'Reverse gear', teeth: 27, axis: 'propshaft', side: 1 },
  ],
  meshes: [
    {
      id: 'forward',
      label: 'Forward mesh',
      pinion: 'pinion',
      gear: 'forward-gear',
      mesh: lowerMesh,
      ...lowerTurning,
    },
    {
      id: 'reverse',
      label: 'Reverse mesh',
      pinion: 'pinion',
      gear: 'reverse-gear',
      mesh: lowerMesh,
      ...lowerTurning,
    },
  ],
  adjusters: [
    {
      id: 'pinion',
      label: 'Pinion shims',
      kind: 'shim',
      axis: 'driveshaft',
      atMm: 98,
      moves: 'pinion',
      effect: -1,
      minMm: 0.2,
      maxMm: 1.6,
      maxPieces: 4,
      startMm: 0.8,
    },
    {
      id: 'forward',
      label: 'Forward shims',
      kind: 'shim',
      axis: 'propshaft',
      atMm: -57,
      moves: 'forward-gear',
      effect: -1,
      minMm: 0.2,
      maxMm: 1.6,
      maxPieces: 4,
      startMm: 0.8,
    },
    {
      id: 'reverse',
      label: 'Reverse shims',
      kind: 'shim',
      axis: 'propshaft',
      atMm: 80,
      moves: 'reverse-gear',
      effect: -1,
      minMm: 0.2,
      maxMm: 1.6,
      maxPieces: 4,
      startMm: 0.8,
    },
  ],
  bearings: [
    {
      id: 'driveshaft-lower',
      label: 'Vertical taper, lower',
      kind: 'taper',
      axis: 'driveshaft',
      atMm: 112,
      setting: { kind: 'rolling-torque', newNm: { min: 0.5, max: 0.8 } },
    },
    { id: 'driveshaft-upper', label: 'Vertical taper, upper', kind: 'taper', axis: 'driveshaft', atMm: 136 },
    { id: 'forward-taper', label: 'Forward gear taper', kind: 'taper', axis: 'propshaft', atMm: -69 },
    { id: 'reverse-ball', label: 'Reverse gear ball', kind: 'ball', axis: 'propshaft', atMm: 98 },
    { id: 'carrier-needle', label: 'Carrier needle', kind: 'needle', axis: 'propshaft', atMm: 150 },
  ],
  seals: [
    { id: 'driveshaft', label: 'Vertical shaft seal', axis: 'driveshaft', atMm: 156 },
    { id: 'propshaft', label: 'Propeller shaft seals', axis: 'propshaft', atMm: 176 },
  ],
  measures: [
    {
      id: 'depth',
      label: 'Pinion depth',
      kind: 'depth',
      gear: 'pinion',
      how: { method: 'feeler-block', nominalClearanceMm: 0.64, nominalDepthMm: 41.2 },
      window: { min: 41.16, max: 41.24 },
      target: 41.2,
      readings: 3,
      before: [
        'Pinion nut at its final torque',
        'Block flat on a clean bore',
        'Feeler drags lightly, no shake',
      ],
    },
    {
      ...onTheArm,
      id: 'backlash-forward',
      label: 'Forward backlash',
      mesh: 'forward',
      window: { min: 0.42, max: 0.6 },
      target: 0.51,
    },
    {
      ...onTheArm,
      id: 'backlash-reverse',
      label: 'Reverse backlash',
      mesh: 'reverse',
      window: { min: 0.6, max: 1 },
      target: 0.8,
    },
  ],
  runoutLimits: [...runoutLimits, propellerSpline],
  parts: shiftingLowerParts({ kit: 1420, gearSet: 12600, shaft: 3900, outboard: false }),
  bench: alke2LowerBench,
  fasteners: lowerFasteners(alke2LowerBench),
  service: lowerService,
  further: lowerFurther({ partner: 'alke-2-upper' }),
}
