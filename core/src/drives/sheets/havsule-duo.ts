import type { DriveSheet } from '../sheet.ts'
import { lowerFurther, upperFurther } from './further-rows.ts'
import { havsuleLowerParts, havsuleUpperParts } from './other-parts.ts'
import { havsuleLowerBench, havsuleUpperBench } from './bench-rows.ts'
import { lowerFasteners, lowerService, upperFasteners, upperService } from './fastener-rows.ts'

const upperMesh = {
  pinionTeeth: 23,
  gearTeeth: 27,
  moduleMm: 4.2,
  faceWidthMm: 18,
  pressureAngleDeg: 20,
  spiralAngleDeg: 30,
  cutterRadiusMm: 59,
}
const upperTurning = { pinionHand: 'right', pinionTurns: 'anticlockwise' } as const
/** As it turns ahead; astern the upper case turns it the other way. */
const lowerTurning = { pinionHand: 'left', pinionTurns: 'clockwise' } as const
const lowerMesh = {
  pinionTeeth: 16,
  gearTeeth: 25,
  moduleMm: 4,
  faceWidthMm: 16,
  pressureAngleDeg: 20,
  spiralAngleDeg: 32,
  cutterRadiusMm: 46.2,
}

const stamps = [
  { code: 'H23/16', teeth: '23 : 27 over 16 : 25', note: 'this pair of sheets', own: true },
  { code: 'H23/15', teeth: '23 : 27 over 15 : 25', note: 'look-alike lower, wrong ratio' },
  { code: 'H23/17', teeth: '23 : 27 over 17 : 26', note: 'look-alike lower, wrong ratio' },
]

const runoutLimits = [
  { zone: 'Seal land', tirMm: 0.05 },
  { zone: 'Bearing journal', tirMm: 0.03 },
]
const propellerSpline = { zone: 'Propeller spline', tirMm: 0.15 }

const atTheInput = {
  kind: 'backlash' as const,
  member: 'pinion' as const,
  radiusMm: 48,
  readings: 3,
  window: { min: 0.15, max: 0.25 },
  target: 0.2,
  before: ['Both gears on their bearings', 'Cone clutch in its middle position'],
}

export const havsuleDuoUpper: DriveSheet = {
  id: 'havsule-duo-upper',
  version: 7,
  name: 'Havsule Duo upper',
  family: 'stern-upper-reversing',
  demo: true,
  summary:
    'Reversing upper case: the input gear runs between an upper and a lower gear, cone clutch between them.',
  ratio: { overall: '1.17 : 1, with its lower 1.83 : 1', stamps },
  oilCapacityMl: 1300,
  axes: [
    { id: 'input', label: 'Input shaft', line: 'horizontal', fromMm: -206, toMm: -42, radiusMm: 13 },
    { id: 'vertical', label: 'Vertical shaft', line: 'vertical', fromMm: -150, toMm: 112, radiusMm: 13 },
  ],
  gears: [
    { id: 'input-gear', label: 'Input gear', teeth: 23, axis: 'input', side: -1 },
    { id: 'upper-gear', label: 'Upper gear', teeth: 27, axis: 'vertical', side: 1 },
    { id: 'lower-gear', label: 'Lower gear', teeth: 27, axis: 'vertical', side: -1 },
  ],
  meshes: [
    {
      id: 'upper',
      label: 'Upper mesh',
      pinion: 'input-gear',
      gear: 'upper-gear',
      mesh: upperMesh,
      ...upperTurning,
    },
    {
      id: 'lower',
      label: 'Lower mesh',
      pinion: 'input-gear',
      gear: 'lower-gear',
      mesh: upperMesh,
      ...upperTurning,
    },
  ],
  adjusters: [
    {
      id: 'upper',
      label: 'Upper gear shims',
      kind: 'shim',
      axis: 'vertical',
      atMm: 74,
      moves: 'upper-gear',
      effect: 1,
      minMm: 0.2,
      maxMm: 1.8,
      maxPieces: 4,
      startMm: 0.9,
    },
    {
      id: 'lower',
      label: 'Lower gear shims',
      kind: 'shim',
      axis: 'vertical',
      atMm: -76,
      moves: 'lower-gear',
      effect: -1,
      minMm: 0.2,
      maxMm: 1.8,
      maxPieces: 4,
      startMm: 0.9,
    },
    {
      id: 'input',
      label: 'Input shims',
      kind: 'shim',
      axis: 'input',
      atMm: -88,
      moves: 'input-gear',
      effect: -1,
      minMm: 0.2,
      maxMm: 1.8,
      maxPieces: 4,
      startMm: 0.9,
      setBy: 'case-and-gear',
    },
    {
      id: 'cover',
      label: 'Cover shims',
      kind: 'shim',
      axis: 'vertical',
      atMm: 104,
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
      atMm: -104,
      setting: { kind: 'rolling-torque', newNm: { min: 0.7, max: 1.1 } },
    },
    { id: 'input-outer', label: 'Input taper, outer', kind: 'taper', axis: 'input', atMm: -138 },
    {
      id: 'upper-ball',
      label: 'Upper gear bearing',
      kind: 'ball',
      axis: 'vertical',
      atMm: 88,
      setting: { kind: 'crush', crushMm: 0.06, shimsAt: 'cover' },
    },
    { id: 'lower-taper', label: 'Lower gear bearing', kind: 'taper', axis: 'vertical', atMm: -90 },
  ],
  seals: [
    { id: 'input', label: 'Input seal', axis: 'input', atMm: -162 },
    { id: 'vertical', label: 'Vertical shaft seal', axis: 'vertical', atMm: -122 },
  ],
  measures: [
    {
      ...atTheInput,
      id: 'backlash-upper',
      label: 'Upper gear backlash',
      mesh: 'upper',
      hold: 'Hold the upper gear, lower gear free.',
    },
    {
      ...atTheInput,
      id: 'backlash-lower',
      label: 'Lower gear backlash',
      mesh: 'lower',
      hold: 'Hold the lower gear, upper gear free.',
    },
  ],
  runoutLimits,
  parts: havsuleUpperParts,
  bench: havsuleUpperBench,
  fasteners: upperFasteners(havsuleUpperBench),
  service: upperService,
  further: upperFurther('havsule-duo-lower'),
}

const atThePinion = {
  kind: 'backlash' as const,
  member: 'pinion' as const,
  radiusMm: 45,
  readings: 3,
  before: ['Pinion nut at its final torque', 'Arm square to the indicator'],
}

export const havsuleDuoLower: DriveSheet = {
  id: 'havsule-duo-lower',
  version: 7,
  name: 'Havsule Duo lower',
  family: 'stern-lower-twin',
  demo: true,
  summary:
    'Twin-propeller lower: the pinion drives a front gear and, on a tube shaft, a rear gear the other way.',
  ratio: { overall: '1.56 : 1, with its upper 1.83 : 1', stamps },
  oilCapacityMl: 850,
  axes: [
    { id: 'driveshaft', label: 'Vertical shaft', line: 'vertical', fromMm: 30, toMm: 164, radiusMm: 12 },
    { id: 'tube', label: 'Tube shaft', line: 'horizontal', fromMm: 26, toMm: 188, radiusMm: 19 },
    {
      id: 'inner',
      label: 'Inner shaft',
      line: 'horizontal',
      fromMm: -74,
      toMm: 246,
      radiusMm: 11,
      insideOf: 'tube',
    },
  ],
  gears: [
    { id: 'pinion', label: 'Pinion', teeth: 16, axis: 'driveshaft', side: 1 },
    { id: 'front-gear', label: 'Front gear', teeth: 25, axis: 'inner', side: -1 },
    { id: 'rear-gear', label: 'Rear gear', teeth: 25, axis: 'tube', side: 1 },
  ],
  meshes: [
    {
      id: 'front',
      label: 'Front mesh',
      pinion: 'pinion',
      gear: 'front-gear',
      mesh: lowerMesh,
      ...lowerTurning,
    },
    { id: 'rear', label: 'Rear mesh', pinion: 'pinion', gear: 'rear-gear', mesh: lowerMesh, ...lowerTurning },
  ],
  adjusters: [
    {
      id: 'pinion',
      label: 'Pinion shims',
      kind: 'shim',
      axis: 'driveshaft',
      atMm: 82,
      moves: 'pinion',
      effect: -1,
      minMm: 0.2,
      maxMm: 1.6,
      maxPieces: 4,
      startMm: 0.8,
    },
    {
      id: 'front',
      label: 'Front shims',
      kind: 'shim',
      axis: 'inner',
      atMm: -50,
      moves: 'front-gear',
      effect: -1,
      minMm: 0.2,
      maxMm: 1.6,
      maxPieces: 4,
      startMm: 0.8,
    },
    {
      id: 'rear',
      label: 'Rear shims',
      kind: 'shim',
      axis: 'tube',
      atMm: 70,
      moves: 'rear-gear',
      effect: -1,
      minMm: 0.2,
      maxMm: 1.6,
      maxPieces: 4,
      startMm: 0.8,
    },
  ],
  bearings: [
    { id: 'driveshaft-lower', label: 'Vertical taper, lower', kind: 'taper', axis: 'driveshaft', atMm: 96 },
    { id: 'driveshaft-upper', label: 'Vertical taper, upper', kind: 'taper', axis: 'driveshaft', atMm: 120 },
    { id: 'front-taper', label: 'Front gear taper', kind: 'taper', axis: 'inner', atMm: -62 },
    { id: 'rear-taper', label: 'Rear gear taper', kind: 'taper', axis: 'tube', atMm: 86 },
    { id: 'tube-needle', label: 'Tube shaft needle', kind: 'needle', axis: 'tube', atMm: 138 },
  ],
  seals: [
    { id: 'driveshaft', label: 'Vertical shaft seal', axis: 'driveshaft', atMm: 144 },
    { id: 'outer', label: 'Tube shaft seals', axis: 'tube', atMm: 162 },
    { id: 'inner', label: 'Inner shaft seal', axis: 'inner', atMm: 196 },
  ],
  measures: [
    {
      id: 'depth',
      label: 'Pinion depth',
      kind: 'depth',
      gear: 'pinion',
      how: { method: 'arbor', arborDiameterMm: 20, farSide: false },
      window: { min: 33.17, max: 33.23 },
      target: 33.2,
      readings: 3,
      before: [
        'Pinion nut at its final torque',
        'Arbor turns in both bores',
        'Plunger rocked to its highest value',
      ],
    },
    {
      ...atThePinion,
      id: 'backlash-front',
      label: 'Front gear backlash',
      mesh: 'front',
      hold: 'Hold the inner shaft still.',
      window: { min: 0.16, max: 0.26 },
      target: 0.21,
    },
    {
      ...atThePinion,
      id: 'backlash-rear',
      label: 'Rear gear backlash',
      mesh: 'rear',
      hold: 'Hold the tube shaft still.',
      window: { min: 0.18, max: 0.3 },
      target: 0.24,
    },
    {
      id: 'inner-end-play',
      label: 'Inner shaft end play',
      kind: 'end-play',
      axis: 'inner',
      window: { min: 0.05, max: 0.15 },
      target: 0.1,
      readings: 3,
      before: ['Indicator parallel to the shaft', 'Pushed and pulled to both stops'],
    },
  ],
  runoutLimits: [...runoutLimits, propellerSpline],
  parts: havsuleLowerParts,
  bench: havsuleLowerBench,
  fasteners: lowerFasteners(havsuleLowerBench),
  service: lowerService,
  further: lowerFurther({ partner: 'havsule-duo-upper', twin: true }),
}
