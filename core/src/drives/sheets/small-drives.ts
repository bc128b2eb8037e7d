import type { DriveSheet } from '../sheet.ts'
import { rordrumParts, sivkrokParts, teistParts } from './other-parts.ts'
import { rordrumBench, sivkrokBench, teistBench } from './bench-rows.ts'
import {
  angleFasteners,
  angleService,
  beltFasteners,
  beltService,
  lowerService,
  smallFasteners,
} from './fastener-rows.ts'

const runoutLimits = [
  { zone: 'Seal land', tirMm: 0.05 },
  { zone: 'Bearing journal', tirMm: 0.03 },
  { zone: 'Propeller spline', tirMm: 0.15 },
]

export const rordrumV: DriveSheet = {
  id: 'rordrum-v',
  version: 6,
  name: 'Rordrum V',
  family: 'right-angle-threaded',
  demo: true,
  summary:
    'Right-angle drive with straight teeth; both carriers are threaded, backlash and bearing load are set by turning.',
  ratio: { overall: '1.00 : 1', stamps: [{ code: 'R18', teeth: '18 : 18', note: 'this sheet', own: true }] },
  oilCapacityMl: 480,
  axes: [
    { id: 'input', label: 'Input shaft', line: 'vertical', fromMm: 28, toMm: 168, radiusMm: 12 },
    { id: 'output', label: 'Output shaft', line: 'horizontal', fromMm: 28, toMm: 206, radiusMm: 12 },
  ],
  gears: [
    { id: 'input-gear', label: 'Input gear', teeth: 18, axis: 'input', side: 1 },
    { id: 'output-gear', label: 'Output gear', teeth: 18, axis: 'output', side: 1 },
  ],
  meshes: [
    {
      id: 'main',
      label: 'Mesh',
      pinion: 'input-gear',
      gear: 'output-gear',
      mesh: {
        pinionTeeth: 18,
        gearTeeth: 18,
        moduleMm: 5,
        faceWidthMm: 20,
        pressureAngleDeg: 20,
        spiralAngleDeg: 0,
      },
    },
  ],
  adjusters: [
    {
      id: 'carrier',
      label: 'Output carrier',
      kind: 'threaded',
      axis: 'output',
      atMm: 92,
      moves: 'output-gear',
      effect: -1,
      minMm: 0,
      maxMm: 6,
      maxPieces: 0,
      startMm: 3,
      leadMm: 1.5,
      notches: 18,
    },
  ],
  bearings: [
    { id: 'input-inner', label: 'Input taper, inner', kind: 'taper', axis: 'input', atMm: 88 },
    { id: 'input-outer', label: 'Input taper, outer', kind: 'taper', axis: 'input', atMm: 122 },
    {
      id: 'output-inner',
      label: 'Output taper, inner',
      kind: 'taper',
      axis: 'output',
      atMm: 106,
      setting: { kind: 'rolling-torque', newNm: { min: 1.2, max: 1.8 } },
    },
    { id: 'output-outer', label: 'Output taper, outer', kind: 'taper', axis: 'output', atMm: 140 },
  ],
  seals: [
    { id: 'input', label: 'Input seal', axis: 'input', atMm: 146 },
    { id: 'output', label: 'Output seal', axis: 'output', atMm: 168 },
  ],
  measures: [
    {
      id: 'backlash',
      label: 'Backlash',
      kind: 'backlash',
      mesh: 'main',
      member: 'gear',
      radiusMm: 60,
      hold: 'Hold the input shaft still.',
      window: { min: 0.12, max: 0.2 },
      target: 0.16,
      readings: 3,
      before: ['Carrier turned from loose to tight', 'Lock screws nipped'],
    },
  ],
  runoutLimits: runoutLimits.slice(0, 2),
  variants: [
    {
      id: 'early',
      label: 'early',
      toSerial: 'RV-2999',
      patch: {
        measures: { backlash: { window: { min: 0.15, max: 0.24 }, target: 0.195 } },
        bearings: { 'output-inner': { setting: { newNm: { min: 0.9, max: 1.4 } } } },
        parts: { 'output-ring': { name: 'O-ring of the output carrier, the thin one' } },
      },
    },
    { id: 'late', label: 'late', fromSerial: 'RV-3000', patch: {} },
  ],
  parts: rordrumParts,
  bench: rordrumBench,
  fasteners: angleFasteners(rordrumBench),
  service: angleService,
}

export const teist6: DriveSheet = {
  id: 'teist-6',
  version: 6,
  name: 'Teist 6',
  family: 'outboard-straight',
  demo: true,
  summary: 'Small outboard with straight bevel gears and nothing to shim: measure, and judge wear.',
  ratio: { overall: '2.00 : 1', stamps: [{ code: 'T13', teeth: '13 : 26', note: 'this sheet', own: true }] },
  oilCapacityMl: 120,
  axes: [
    { id: 'driveshaft', label: 'Driveshaft', line: 'vertical', fromMm: 20, toMm: 108, radiusMm: 6 },
    { id: 'propshaft', label: 'Propeller shaft', line: 'horizontal', fromMm: -44, toMm: 132, radiusMm: 7 },
  ],
  gears: [
    { id: 'pinion', label: 'Pinion', teeth: 13, axis: 'driveshaft', side: 1 },
    { id: 'forward-gear', label: 'Gear', teeth: 26, axis: 'propshaft', side: -1 },
  ],
  meshes: [
    {
      id: 'main',
      label: 'Mesh',
      pinion: 'pinion',
      gear: 'forward-gear',
      mesh: {
        pinionTeeth: 13,
        gearTeeth: 26,
        moduleMm: 2.5,
        faceWidthMm: 9,
        pressureAngleDeg: 20,
        spiralAngleDeg: 0,
      },
    },
  ],
  adjusters: [],
  bearings: [
    { id: 'driveshaft', label: 'Driveshaft bush', kind: 'needle', axis: 'driveshaft', atMm: 62 },
    { id: 'front', label: 'Front ball bearing', kind: 'ball', axis: 'propshaft', atMm: -34 },
    { id: 'rear', label: 'Rear bush', kind: 'needle', axis: 'propshaft', atMm: 66 },
  ],
  seals: [
    { id: 'driveshaft', label: 'Driveshaft seal', axis: 'driveshaft', atMm: 84 },
    { id: 'propshaft', label: 'Propeller shaft seal', axis: 'propshaft', atMm: 88 },
  ],
  measures: [
    {
      id: 'backlash',
      label: 'Backlash (wear)',
      kind: 'backlash',
      mesh: 'main',
      member: 'pinion',
      radiusMm: 30,
      hold: 'Hold the propeller shaft still.',
      window: { max: 0.9 },
      readings: 3,
      before: ['Arm square to the indicator'],
    },
    {
      id: 'end-play',
      label: 'Propeller shaft end play',
      kind: 'end-play',
      axis: 'propshaft',
      window: { min: 0.1, max: 0.4 },
      target: 0.25,
      readings: 3,
      before: ['Indicator parallel to the shaft', 'Pushed and pulled to both stops'],
    },
  ],
  runoutLimits,
  parts: teistParts,
  bench: teistBench,
  fasteners: smallFasteners(teistBench),
  service: lowerService,
}

export const sivkrokB: DriveSheet = {
  id: 'sivkrok-b',
  version: 6,
  name: 'Sivkrok B',
  family: 'belt-lower',
  demo: true,
  summary: 'Belt-driven straight lower: no gears, grease-packed bearings, one front seal and two rear.',
  ratio: {
    overall: '1.35 : 1 by belt',
    stamps: [
      { code: 'SB34', teeth: 'pulleys 34 and 46', note: 'this sheet', own: true },
      { code: 'SB38', teeth: 'pulleys 38 and 46', note: 'look-alike, another belt' },
    ],
  },
  axes: [
    {
      id: 'upper-shaft',
      label: 'Upper shaft',
      line: 'horizontal',
      fromMm: -96,
      toMm: 60,
      radiusMm: 11,
      offsetMm: 150,
    },
    { id: 'propshaft', label: 'Propeller shaft', line: 'horizontal', fromMm: -60, toMm: 182, radiusMm: 12 },
  ],
  gears: [],
  meshes: [],
  adjusters: [],
  bearings: [
    { id: 'upper-front', label: 'Upper ball, front', kind: 'ball', axis: 'upper-shaft', atMm: -52 },
    { id: 'upper-rear', label: 'Upper ball, rear', kind: 'ball', axis: 'upper-shaft', atMm: 40 },
    { id: 'front', label: 'Front ball', kind: 'ball', axis: 'propshaft', atMm: -38 },
    { id: 'rear', label: 'Rear ball', kind: 'ball', axis: 'propshaft', atMm: 84 },
  ],
  seals: [
    { id: 'front', label: 'Front seal', axis: 'propshaft', atMm: -52 },
    { id: 'rear-inner', label: 'Rear seal, inner', axis: 'propshaft', atMm: 104 },
    { id: 'rear-outer', label: 'Rear seal, outer', axis: 'propshaft', atMm: 114 },
  ],
  belts: [
    {
      id: 'belt',
      widthMm: 34,
      pulleys: [
        { axis: 'upper-shaft', atMm: -6, radiusMm: 34 },
        { axis: 'propshaft', atMm: -6, radiusMm: 46 },
      ],
    },
  ],
  measures: [
    {
      id: 'end-play',
      label: 'Propeller shaft end play',
      kind: 'end-play',
      axis: 'propshaft',
      window: { min: 0.02, max: 0.1 },
      target: 0.06,
      readings: 3,
      before: ['Belt slack', 'Indicator parallel to the shaft'],
    },
  ],
  runoutLimits: runoutLimits.slice(0, 2),
  parts: sivkrokParts,
  bench: sivkrokBench,
  fasteners: beltFasteners(sivkrokBench),
  service: beltService,
}
