import type { DriveSheet } from '../sheet.ts'
import { lowerFurther } from './further-rows.ts'
import { shiftingLowerParts } from './lower-parts.ts'
import { lomviBench } from './bench-rows.ts'
import { lowerFasteners, lowerService } from './fastener-rows.ts'

const mesh = {
  pinionTeeth: 13,
  gearTeeth: 28,
  moduleMm: 4.2,
  faceWidthMm: 17,
  pressureAngleDeg: 20,
  spiralAngleDeg: 35,
  cutterRadiusMm: 50.7,
}

const onTheArm = {
  kind: 'backlash' as const,
  member: 'pinion' as const,
  radiusMm: 38,
  hold: 'Clutch in neutral. Load this gear onto its own bearing (pull or push the propeller shaft with the fixture) and hold the gear itself still; rock the driveshaft. With the clutch engaged you would read the play of its dogs.',
  load: 'outward' as const,
  readings: 3,
  before: ['Pinion nut at its final torque', 'Arm square to the indicator', 'Driveshaft pulled up lightly'],
}

const turning = { pinionHand: 'left', pinionTurns: 'clockwise' } as const

export const lomvi90: DriveSheet = {
  id: 'lomvi-90',
  version: 7,
  name: 'Lomvi 90',
  family: 'outboard-fnr',
  demo: true,
  summary: 'Outboard lower unit: one pinion between a forward and a reverse gear, dog clutch.',
  ratio: {
    overall: '2.15 : 1',
    stamps: [
      { code: 'L13', teeth: '13 : 28', note: 'this sheet', own: true },
      { code: 'L14', teeth: '14 : 28', note: 'bolts on as well, but is the wrong ratio' },
      { code: 'L12', teeth: '12 : 29', note: 'bolts on as well, but is the wrong ratio' },
    ],
  },
  oilCapacityMl: 620,
  axes: [
    { id: 'driveshaft', label: 'Driveshaft', line: 'vertical', fromMm: 36, toMm: 172, radiusMm: 10 },
    { id: 'propshaft', label: 'Propeller shaft', line: 'horizontal', fromMm: -74, toMm: 232, radiusMm: 11 },
  ],
  gears: [
    { id: 'pinion', label: 'Pinion', teeth: 13, axis: 'driveshaft', side: 1 },
    { id: 'forward-gear', label: 'Forward gear', teeth: 28, axis: 'propshaft', side: -1, faceTirMm: 0.05 },
    { id: 'reverse-gear', label: 'Reverse gear', teeth: 28, axis: 'propshaft', side: 1, faceTirMm: 0.05 },
  ],
  meshes: [
    { id: 'forward', label: 'Forward mesh', pinion: 'pinion', gear: 'forward-gear', mesh, ...turning },
    { id: 'reverse', label: 'Reverse mesh', pinion: 'pinion', gear: 'reverse-gear', mesh, ...turning },
  ],
  adjusters: [
    {
      id: 'pinion',
      label: 'Pinion shims',
      kind: 'shim',
      axis: 'driveshaft',
      atMm: 92,
      moves: 'pinion',
      effect: 1,
      minMm: 0.2,
      maxMm: 1.6,
      maxPieces: 4,
      startMm: 0.75,
    },
    {
      id: 'forward',
      label: 'Forward shims',
      kind: 'shim',
      axis: 'propshaft',
      atMm: -52,
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
      atMm: 74,
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
      label: 'Driveshaft taper, lower',
      kind: 'taper',
      axis: 'driveshaft',
      atMm: 104,
      setting: { kind: 'rolling-torque', newNm: { min: 0.45, max: 0.75 }, runInNm: { min: 0.25, max: 0.45 } },
    },
    {
      id: 'driveshaft-upper',
      label: 'Driveshaft taper, upper',
      kind: 'taper',
      axis: 'driveshaft',
      atMm: 126,
    },
    { id: 'forward-taper', label: 'Forward gear taper', kind: 'taper', axis: 'propshaft', atMm: -63 },
    { id: 'reverse-ball', label: 'Reverse gear ball', kind: 'ball', axis: 'propshaft', atMm: 90 },
    { id: 'carrier-needle', label: 'Carrier needle', kind: 'needle', axis: 'propshaft', atMm: 142 },
  ],
  seals: [
    { id: 'pump', label: 'Water pump base seals', axis: 'driveshaft', atMm: 148 },
    { id: 'propshaft', label: 'Propeller shaft seals', axis: 'propshaft', atMm: 168 },
  ],
  measures: [
    {
      id: 'depth',
      label: 'Pinion depth',
      kind: 'depth',
      gear: 'pinion',
      how: { method: 'master-drop', masterMm: 50, extends: false },
      window: { min: 38.37, max: 38.43 },
      target: 38.4,
      readings: 3,
      before: [
        'Pinion nut at its final torque',
        'Gauge zeroed on the 50 mm master',
        'Gauge still turns freely in the bore',
      ],
    },
    {
      ...onTheArm,
      id: 'backlash-forward',
      label: 'Forward backlash',
      mesh: 'forward',
      window: { min: 0.38, max: 0.56 },
      target: 0.47,
    },
    {
      ...onTheArm,
      id: 'backlash-reverse',
      label: 'Reverse backlash',
      mesh: 'reverse',
      window: { min: 0.55, max: 0.9 },
      target: 0.725,
    },
  ],
  runoutLimits: [
    { zone: 'Seal land', tirMm: 0.05 },
    { zone: 'Bearing journal', tirMm: 0.03 },
    { zone: 'Propeller spline', tirMm: 0.15 },
  ],
  parts: shiftingLowerParts({ kit: 1290, gearSet: 11900, shaft: 3400, outboard: true }),
  bench: lomviBench,
  fasteners: lowerFasteners(lomviBench),
  service: lowerService,
  further: lowerFurther({}),
}
