import type { Part } from '../parts.ts'
import { part, sealKit } from './part-rows.ts'

/**
 * Parts of the demo's lower units that shift between a forward and a reverse gear, in the order in which they come off.
 * Outboard and sterndrive lowers of the scenario differ in prices and in what sits on top.
 */
export function shiftingLowerParts(options: {
  kit: number
  gearSet: number
  shaft: number
  outboard: boolean
}): Part[] {
  const { seal, ring } = sealKit('Seal kit', options.kit)
  return [
    part('prop-lock', 'Propeller nut, tab washer', 'nut', 190, { inside: false }),
    part('propeller', 'Propeller', 'hub', 0, { after: ['prop-lock'], inside: false }),
    part('thrust-hub', 'Thrust hub', 'hub', 640, { after: ['propeller'], inside: false }),
    part('anode', 'Trim tab anode', 'anode', 420, { inside: false }),
    ...(options.outboard
      ? [
          part('pump-cover', 'Water pump cover and impeller', 'pump', 980, {
            inside: false,
            place: 'seal:pump',
          }),
          part('pump-key', 'Impeller key', 'key', 45, { after: ['pump-cover'], inside: false }),
          part('pump-base', 'Pump base', 'housing', 760, {
            after: ['pump-cover', 'pump-key'],
            inside: false,
          }),
          seal('pump-seals', 'Pump base seals', { after: ['pump-base'], place: 'seal:pump', count: 2 }),
          ring('pump-gasket', 'Pump gasket', { after: ['pump-cover'] }),
        ]
      : [
          seal('top-seal', 'Vertical shaft seal', { place: 'seal:driveshaft' }),
          ring('top-ring', 'O-ring of the upper face', {}),
        ]),
    part('shift-rod', 'Shift rod with its bushing', 'shift', 870, {}),
    seal('shift-seal', 'Shift shaft seal and O-ring', { after: ['shift-rod'] }),
    part('ring-nut', 'Carrier ring nut and tab washer', 'nut', 560, { after: ['thrust-hub'], inside: false }),
    part('carrier', 'Propeller shaft carrier', 'cup', 2950, { after: ['ring-nut'], inside: false }),
    part('carrier-key', 'Carrier key', 'key', 40, { after: ['ring-nut'] }),
    ring('carrier-ring', 'Carrier O-rings', { after: ['carrier'], count: 2 }),
    seal('prop-seals', 'Propeller shaft seals', { after: ['carrier'], place: 'seal:propshaft', count: 2 }),
    part('carrier-needle', 'Carrier needle', 'needle', 390, {
      after: ['carrier'],
      place: 'bearing:carrier-needle',
    }),
    part('reverse-gear', 'Reverse gear', 'gear', options.gearSet, {
      after: ['carrier'],
      place: 'gear:reverse-gear',
      set: 'Gear set',
      waitDays: 9,
    }),
    part('reverse-ball', 'Reverse gear ball', 'bearing', 620, {
      after: ['reverse-gear'],
      place: 'bearing:reverse-ball',
    }),
    part('reverse-shims', 'Reverse shims', 'shim', 0, { after: ['reverse-gear'], place: 'stack:reverse' }),
    part('reverse-washer', 'Reverse thrust washer', 'washer', 160, { after: ['reverse-gear'] }),
    part('prop-shaft', 'Propeller shaft', 'shaft', options.shaft, { after: ['carrier'], waitDays: 6 }),
    part('clutch-dog', 'Clutch dog', 'clutch', 1480, { after: ['prop-shaft'], waitDays: 4 }),
    part('dog-spring', 'Dog spring and pin', 'key', 95, { after: ['prop-shaft'] }),
    part('shift-cam', 'Shift cam and follower', 'shift', 720, { after: ['prop-shaft', 'shift-rod'] }),
    part('pinion-nut', 'Pinion nut', 'nut', 140, { after: ['prop-shaft'] }),
    part('driveshaft', 'Driveshaft', 'shaft', options.shaft + 600, {
      after: ['pinion-nut', options.outboard ? 'pump-base' : 'top-seal'],
      waitDays: 6,
    }),
    part('pinion', 'Pinion', 'gear', options.gearSet, {
      after: ['driveshaft'],
      place: 'gear:pinion',
      set: 'Gear set',
      waitDays: 9,
    }),
    part('pinion-shims', 'Pinion shims', 'shim', 0, { after: ['driveshaft'], place: 'stack:pinion' }),
    part('driveshaft-tapers', 'Driveshaft taper pair', 'bearing', 1340, {
      after: ['driveshaft'],
      place: 'bearing:driveshaft-lower',
    }),
    part('forward-gear', 'Forward gear', 'gear', options.gearSet, {
      after: ['pinion'],
      place: 'gear:forward-gear',
      set: 'Gear set',
      waitDays: 9,
    }),
    part('forward-taper', 'Forward gear taper', 'bearing', 690, {
      after: ['forward-gear'],
      place: 'bearing:forward-taper',
      set: 'Forward taper and its cup',
    }),
    part('forward-cup', 'Forward taper cup', 'cup', 690, {
      after: ['forward-gear'],
      place: 'bearing:forward-taper',
      set: 'Forward taper and its cup',
    }),
    part('forward-shims', 'Forward shims', 'shim', 0, { after: ['forward-cup'], place: 'stack:forward' }),
    ring('plug-gaskets', 'Gaskets of drain and vent', { count: 2 }),
    part('housing', 'Gearcase housing', 'housing', 14800, { waitDays: 21, inside: false }),
  ]
}
