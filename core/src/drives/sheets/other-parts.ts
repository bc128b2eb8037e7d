import type { Part } from '../parts.ts'
import { part, sealKit } from './part-rows.ts'

const upperKit = sealKit('Seal kit, upper', 1180)
const duoUpperKit = sealKit('Seal kit, upper', 1640)
const duoLowerKit = sealKit('Seal kit, lower', 1890)
const rordrumKit = sealKit('Seal kit', 760)
const teistKit = sealKit('Seal kit', 310)
const tjeldKit = sealKit('Seal kit', 420)
const havhestKit = sealKit('Seal kit, upper', 1490)
const beltKit = sealKit('Seal kit', 540)

/** Parts of the demo's remaining drives, each list in the order in which it comes off. */
export const alke2UpperParts: Part[] = [
  part('yoke-nut', 'Yoke nut', 'nut', 120, { inside: false }),
  part('yoke', 'Input yoke', 'shaft', 1950, { after: ['yoke-nut'], inside: false }),
  part('retainer', 'Input retainer ring', 'nut', 610, { after: ['yoke'], inside: false }),
  upperKit.seal('input-seal', 'Input seal', { after: ['yoke'], place: 'seal:input' }),
  upperKit.ring('retainer-ring', 'O-ring of the retainer', { after: ['retainer'] }),
  part('cover', 'Top cover', 'housing', 2300, { inside: false }),
  part('cover-shims', 'Cover shims', 'shim', 0, { after: ['cover'], place: 'stack:cover' }),
  upperKit.ring('cover-ring', 'O-ring of the cover', { after: ['cover'] }),
  part('top-taper', 'Top cover bearing', 'bearing', 780, { after: ['cover'], place: 'bearing:top' }),
  part('input-gear', 'Input gear', 'gear', 9900, {
    after: ['retainer'],
    place: 'gear:input-gear',
    set: 'Upper gear set',
    waitDays: 9,
  }),
  part('input-tapers', 'Input taper pair', 'bearing', 1560, {
    after: ['input-gear'],
    place: 'bearing:input-inner',
  }),
  part('input-spacer', 'Crush spacer', 'washer', 210, { after: ['input-gear'] }),
  part('input-shims', 'Input shims', 'shim', 0, { after: ['input-gear'], place: 'stack:input' }),
  part('vertical-shaft', 'Vertical shaft', 'shaft', 4100, { after: ['cover', 'input-gear'], waitDays: 6 }),
  part('vertical-gear', 'Vertical gear', 'gear', 9900, {
    after: ['vertical-shaft'],
    place: 'gear:vertical-gear',
    set: 'Upper gear set',
    waitDays: 9,
  }),
  part('lower-taper', 'Vertical taper, lower', 'bearing', 840, {
    after: ['vertical-shaft'],
    place: 'bearing:vertical-lower',
  }),
  upperKit.seal('vertical-seal', 'Vertical shaft seal', {
    after: ['vertical-shaft'],
    place: 'seal:vertical',
  }),
  part('water-passage', 'Water passage sleeve', 'housing', 260, { inside: false }),
  upperKit.ring('passage-ring', 'O-ring of the oil passage', {}),
  part('housing', 'Upper case', 'housing', 16200, { waitDays: 21, inside: false }),
]

export const havsuleUpperParts: Part[] = [
  part('input-nut', 'Input nut', 'nut', 130, { inside: false }),
  part('coupling', 'Input coupling', 'shaft', 2400, { after: ['input-nut'], inside: false }),
  duoUpperKit.seal('input-seal', 'Input seal', { after: ['coupling'], place: 'seal:input' }),
  part('input-carrier', 'Input carrier', 'cup', 3300, { after: ['coupling'], inside: false }),
  duoUpperKit.ring('input-ring', 'O-ring of the input carrier', { after: ['input-carrier'] }),
  part('input-gear', 'Input gear', 'gear', 13800, {
    after: ['input-carrier'],
    place: 'gear:input-gear',
    set: 'Upper gear set',
    waitDays: 10,
  }),
  part('input-tapers', 'Input taper pair', 'bearing', 1720, {
    after: ['input-gear'],
    place: 'bearing:input-inner',
  }),
  part('input-shims', 'Input shims', 'shim', 0, { after: ['input-carrier'], place: 'stack:input' }),
  part('shift-fork', 'Shift fork and eccentric', 'shift', 1340, {}),
  part('cover', 'Top cover', 'housing', 2700, { after: ['input-gear'], inside: false }),
  duoUpperKit.ring('cover-ring', 'O-ring of the cover', { after: ['cover'] }),
  part('cover-shims', 'Cover shims', 'shim', 0, { after: ['cover'], place: 'stack:cover' }),
  part('upper-shims', 'Upper gear shims', 'shim', 0, { after: ['cover'], place: 'stack:upper' }),
  part('upper-ball', 'Upper gear bearing', 'bearing', 960, { after: ['cover'], place: 'bearing:upper-ball' }),
  part('upper-gear', 'Upper gear', 'gear', 13800, {
    after: ['cover', 'shift-fork'],
    place: 'gear:upper-gear',
    set: 'Upper gear set',
    waitDays: 10,
  }),
  part('upper-needle', 'Upper gear needle', 'needle', 410, { after: ['upper-gear'] }),
  part('cone', 'Cone clutch', 'clutch', 4200, {
    after: ['upper-gear'],
    set: 'Cone and springs',
    waitDays: 5,
  }),
  part('cone-springs', 'Cone springs', 'key', 4200, {
    after: ['cone'],
    set: 'Cone and springs',
    waitDays: 5,
  }),
  part('vertical-shaft', 'Vertical shaft', 'shaft', 5200, { after: ['cone'], waitDays: 6 }),
  part('lower-gear', 'Lower gear', 'gear', 13800, {
    after: ['vertical-shaft'],
    place: 'gear:lower-gear',
    set: 'Upper gear set',
    waitDays: 10,
  }),
  part('lower-needle', 'Lower gear needle', 'needle', 410, { after: ['lower-gear'] }),
  part('lower-taper', 'Lower gear bearing', 'bearing', 890, {
    after: ['lower-gear'],
    place: 'bearing:lower-taper',
  }),
  part('lower-shims', 'Lower gear shims', 'shim', 0, { after: ['lower-gear'], place: 'stack:lower' }),
  duoUpperKit.seal('vertical-seal', 'Vertical shaft seal', {
    after: ['vertical-shaft'],
    place: 'seal:vertical',
  }),
  part('housing', 'Upper case', 'housing', 19500, { waitDays: 21, inside: false }),
]

export const havsuleLowerParts: Part[] = [
  part('rear-lock', 'Rear propeller nut and tabs', 'nut', 230, { inside: false }),
  part('rear-propeller', 'Rear propeller', 'hub', 0, { after: ['rear-lock'], inside: false }),
  part('front-propeller', 'Front propeller', 'hub', 0, {
    after: ['rear-propeller'],
    inside: false,
  }),
  part('thrust-hub', 'Thrust hubs', 'hub', 1120, { after: ['front-propeller'], count: 2, inside: false }),
  part('anode', 'Carrier anode', 'anode', 520, { inside: false }),
  duoLowerKit.seal('inner-seal', 'Inner shaft seal', { after: ['thrust-hub'], place: 'seal:inner' }),
  part('ring-nut', 'Carrier ring nut', 'nut', 690, { after: ['thrust-hub'], inside: false }),
  part('carrier', 'Bearing carrier', 'cup', 3850, { after: ['ring-nut', 'anode'], inside: false }),
  duoLowerKit.ring('carrier-ring', 'Carrier O-rings', { after: ['carrier'], count: 3 }),
  duoLowerKit.seal('outer-seals', 'Tube shaft seals', { after: ['carrier'], place: 'seal:outer', count: 2 }),
  part('tube-needle', 'Tube shaft needle', 'needle', 560, {
    after: ['carrier'],
    place: 'bearing:tube-needle',
  }),
  part('tube-shaft', 'Tube shaft with rear gear', 'shaft', 15200, {
    after: ['carrier'],
    place: 'gear:rear-gear',
    set: 'Gear set with tube shaft',
    waitDays: 10,
  }),
  part('rear-taper', 'Rear gear taper', 'bearing', 940, {
    after: ['tube-shaft'],
    place: 'bearing:rear-taper',
  }),
  part('rear-shims', 'Rear shims', 'shim', 0, { after: ['tube-shaft'], place: 'stack:rear' }),
  part('inner-shaft', 'Inner shaft', 'shaft', 5100, { after: ['tube-shaft'], waitDays: 6 }),
  part('front-gear', 'Front gear', 'gear', 15200, {
    after: ['inner-shaft', 'pinion'],
    place: 'gear:front-gear',
    set: 'Gear set with tube shaft',
    waitDays: 10,
  }),
  part('front-taper', 'Front gear taper', 'bearing', 880, {
    after: ['front-gear'],
    place: 'bearing:front-taper',
  }),
  part('front-shims', 'Front shims', 'shim', 0, { after: ['front-gear'], place: 'stack:front' }),
  part('top-cap', 'Vertical shaft cap', 'cup', 1450, { inside: false }),
  duoLowerKit.seal('top-seal', 'Vertical shaft seal', { after: ['top-cap'], place: 'seal:driveshaft' }),
  duoLowerKit.ring('top-ring', 'O-ring of the upper face', {}),
  part('pinion-nut', 'Pinion nut', 'nut', 150, { after: ['tube-shaft'] }),
  part('vertical-shaft', 'Vertical shaft', 'shaft', 4600, { after: ['pinion-nut', 'top-cap'], waitDays: 6 }),
  part('pinion', 'Pinion', 'gear', 15200, {
    after: ['vertical-shaft'],
    place: 'gear:pinion',
    set: 'Gear set with tube shaft',
    waitDays: 10,
  }),
  part('pinion-shims', 'Pinion shims', 'shim', 0, { after: ['vertical-shaft'], place: 'stack:pinion' }),
  part('vertical-tapers', 'Vertical taper pair', 'bearing', 1480, {
    after: ['vertical-shaft'],
    place: 'bearing:driveshaft-lower',
  }),
  duoLowerKit.ring('plug-gaskets', 'Gaskets of drain and vent', { count: 2 }),
  part('housing', 'Gearcase housing', 'housing', 18900, { waitDays: 21, inside: false }),
]

export const rordrumParts: Part[] = [
  part('coupling', 'Output coupling', 'shaft', 1850, { inside: false }),
  part('output-locks', 'Lock screws of the output carrier', 'nut', 60, { count: 2, inside: false }),
  rordrumKit.seal('output-seal', 'Output seal', { after: ['coupling'], place: 'seal:output' }),
  part('output-carrier', 'Output carrier', 'cup', 2650, {
    after: ['output-locks', 'coupling'],
    place: 'stack:carrier',
    inside: false,
  }),
  rordrumKit.ring('output-ring', 'O-ring of the output carrier', { after: ['output-carrier'] }),
  part('output-shaft', 'Output shaft', 'shaft', 3600, { after: ['output-carrier'], waitDays: 6 }),
  part('output-gear', 'Output gear', 'gear', 8200, {
    after: ['output-shaft'],
    place: 'gear:output-gear',
    set: 'Gear pair',
    waitDays: 9,
  }),
  part('output-tapers', 'Output taper pair', 'bearing', 1260, {
    after: ['output-shaft'],
    place: 'bearing:output-inner',
  }),
  part('input-locks', 'Lock screws of the input carrier', 'nut', 60, { count: 2, inside: false }),
  rordrumKit.seal('input-seal', 'Input seal', { place: 'seal:input' }),
  part('input-carrier', 'Input carrier', 'cup', 2650, { after: ['input-locks'], inside: false }),
  rordrumKit.ring('input-ring', 'O-ring of the input carrier', { after: ['input-carrier'] }),
  part('input-gear', 'Input gear with its shaft', 'gear', 8200, {
    after: ['input-carrier'],
    place: 'gear:input-gear',
    set: 'Gear pair',
    waitDays: 9,
  }),
  part('input-tapers', 'Input taper pair', 'bearing', 1260, {
    after: ['input-gear'],
    place: 'bearing:input-inner',
  }),
  rordrumKit.ring('plug-gaskets', 'Gaskets of fill and drain', { count: 2 }),
  part('housing', 'Housing', 'housing', 11200, { waitDays: 21, inside: false }),
]

export const teistParts: Part[] = [
  part('cap', 'Propeller cap and split pin', 'nut', 90, { inside: false }),
  part('propeller', 'Propeller', 'hub', 0, { after: ['cap'], inside: false }),
  part('shear-pin', 'Shear pin', 'key', 25, { after: ['propeller'], inside: false }),
  part('anode', 'Anode', 'anode', 180, { inside: false }),
  part('pump', 'Water pump impeller', 'pump', 260, { inside: false, place: 'seal:driveshaft' }),
  part('pump-key', 'Impeller pin', 'key', 20, { after: ['pump'], inside: false }),
  teistKit.seal('driveshaft-seal', 'Driveshaft seal', { after: ['pump'], place: 'seal:driveshaft' }),
  part('cover', 'Rear cover', 'cup', 520, { after: ['shear-pin'], inside: false }),
  teistKit.ring('cover-ring', 'O-ring of the cover', { after: ['cover'] }),
  teistKit.seal('prop-seal', 'Propeller shaft seal', { after: ['cover'], place: 'seal:propshaft' }),
  part('prop-shaft', 'Propeller shaft with its gear', 'shaft', 3900, {
    after: ['cover'],
    place: 'gear:forward-gear',
    set: 'Shaft and gears',
    waitDays: 12,
  }),
  part('thrust-washer', 'Thrust washer', 'washer', 70, { after: ['prop-shaft'] }),
  part('front-ball', 'Front ball bearing', 'bearing', 240, { after: ['prop-shaft'], place: 'bearing:front' }),
  part('driveshaft', 'Driveshaft', 'shaft', 1250, { after: ['pump'], waitDays: 6 }),
  part('pinion', 'Pinion', 'gear', 3900, {
    after: ['driveshaft', 'prop-shaft'],
    place: 'gear:pinion',
    set: 'Shaft and gears',
    waitDays: 12,
  }),
  teistKit.ring('plug-gaskets', 'Gaskets of drain and vent', { count: 2 }),
  part('housing', 'Gearcase housing', 'housing', 3200, { waitDays: 14, inside: false }),
]

export const sivkrokParts: Part[] = [
  part('prop-lock', 'Propeller nut and tabs', 'nut', 170, { inside: false }),
  part('propeller', 'Propeller', 'hub', 0, { after: ['prop-lock'], inside: false }),
  part('thrust-hub', 'Thrust hub', 'hub', 480, { after: ['propeller'], inside: false }),
  part('anode', 'Shaft anode', 'anode', 340, { inside: false }),
  part('belt-cover', 'Belt cover', 'housing', 690, { inside: false }),
  part('bush-upper', 'Taper bush and key, upper pulley', 'key', 310, {
    after: ['belt-cover'],
    inside: false,
  }),
  part('bush-lower', 'Taper bush and key, lower pulley', 'key', 310, {
    after: ['belt-cover'],
    inside: false,
  }),
  part('belt', 'Toothed belt', 'belt', 1450, {
    after: ['bush-upper', 'bush-lower'],
    waitDays: 5,
    inside: false,
  }),
  part('rear-cap', 'Rear cap', 'cup', 980, { after: ['thrust-hub'], inside: false }),
  beltKit.seal('rear-seals', 'Rear seals', { after: ['rear-cap'], place: 'seal:rear-inner', count: 2 }),
  beltKit.ring('rear-ring', 'O-ring of the rear cap', { after: ['rear-cap'] }),
  part('rear-ball', 'Rear ball', 'bearing', 420, { after: ['rear-cap'], place: 'bearing:rear' }),
  part('prop-shaft', 'Propeller shaft', 'shaft', 2300, { after: ['rear-cap', 'bush-lower'], waitDays: 6 }),
  part('end-play-washer', 'End play washer', 'washer', 85, { after: ['prop-shaft'] }),
  part('front-ball', 'Front ball', 'bearing', 420, { after: ['prop-shaft'], place: 'bearing:front' }),
  beltKit.seal('front-seal', 'Front seal', { after: ['prop-shaft'], place: 'seal:front' }),
  part('housing', 'Housing', 'housing', 7600, { waitDays: 18, inside: false }),
]

export const tjeldParts: Part[] = [
  part('prop-lock', 'Propeller cap and split pin', 'nut', 60, { inside: false }),
  part('propeller', 'Propeller', 'hub', 0, { after: ['prop-lock'], inside: false }),
  part('shear-pin', 'Drive pin', 'key', 25, { after: ['propeller'], inside: false }),
  part('anode', 'Anode', 'anode', 180, { inside: false }),
  part('shift-clamp', 'Clamp of the shift rod', 'shift', 140, { inside: false }),
  part('shift-rod', 'Shift rod', 'shift', 420, { after: ['shift-clamp'] }),
  part('shift-bush', 'Bushing of the shift shaft', 'washer', 95, { after: ['shift-rod'] }),
  tjeldKit.seal('shift-seal', 'Shift shaft O-ring', { after: ['shift-rod'] }),
  part('pump-cover', 'Water pump cover and impeller', 'pump', 390, { inside: false, place: 'seal:pump' }),
  part('pump-key', 'Impeller key', 'key', 20, { after: ['pump-cover'], inside: false }),
  part('pump-base', 'Pump base', 'housing', 280, { after: ['pump-cover', 'pump-key'], inside: false }),
  tjeldKit.seal('pump-seals', 'Pump base seal', { after: ['pump-base'], place: 'seal:pump' }),
  part('carrier-bolts', 'Bolts of the carrier', 'nut', 40, { after: ['propeller'], inside: false }),
  part('carrier', 'Propeller shaft carrier', 'cup', 980, { after: ['carrier-bolts'], inside: false }),
  tjeldKit.ring('carrier-ring', 'Carrier O-ring', { after: ['carrier'] }),
  tjeldKit.seal('prop-seals', 'Propeller shaft seals', {
    after: ['carrier'],
    place: 'seal:propshaft',
    count: 2,
  }),
  part('carrier-needle', 'Carrier bush', 'needle', 150, {
    after: ['carrier'],
    place: 'bearing:carrier-needle',
  }),
  part('reverse-gear', 'Reverse gear', 'gear', 3900, {
    after: ['carrier'],
    place: 'gear:reverse-gear',
    set: 'Gear set',
    waitDays: 7,
  }),
  part('reverse-ball', 'Reverse gear ball', 'bearing', 260, {
    after: ['reverse-gear'],
    place: 'bearing:reverse-ball',
  }),
  part('reverse-shims', 'Reverse thrust shims', 'shim', 0, {
    after: ['reverse-gear'],
    place: 'stack:reverse',
  }),
  part('prop-shaft', 'Propeller shaft', 'shaft', 1350, { after: ['carrier'], waitDays: 5 }),
  part('clutch-dog', 'Clutch dog', 'clutch', 620, { after: ['prop-shaft'], waitDays: 4 }),
  part('dog-spring', 'Dog spring and pin', 'key', 45, { after: ['prop-shaft'] }),
  part('shift-cam', 'Shift cam', 'shift', 240, { after: ['prop-shaft', 'shift-rod'] }),
  part('pinion-nut', 'Pinion nut', 'nut', 55, { after: ['prop-shaft'] }),
  part('driveshaft', 'Driveshaft', 'shaft', 1280, { after: ['pinion-nut', 'pump-base'], waitDays: 5 }),
  part('pinion', 'Pinion', 'gear', 3900, {
    after: ['driveshaft'],
    place: 'gear:pinion',
    set: 'Gear set',
    waitDays: 7,
  }),
  part('pinion-shims', 'Pinion shims', 'shim', 0, { after: ['driveshaft'], place: 'stack:pinion' }),
  part('driveshaft-tapers', 'Driveshaft ball', 'bearing', 310, {
    after: ['driveshaft'],
    place: 'bearing:driveshaft-lower',
  }),
  part('forward-gear', 'Forward gear', 'gear', 3900, {
    after: ['pinion'],
    place: 'gear:forward-gear',
    set: 'Gear set',
    waitDays: 7,
  }),
  part('forward-taper', 'Forward gear taper', 'bearing', 340, {
    after: ['forward-gear'],
    place: 'bearing:forward-taper',
  }),
  part('forward-shims', 'Forward shims', 'shim', 0, { after: ['forward-taper'], place: 'stack:forward' }),
  tjeldKit.ring('plug-gaskets', 'Gaskets of drain and vent', { count: 2 }),
  part('housing', 'Gearcase housing', 'housing', 5200, { waitDays: 14, inside: false }),
]

export const havhestParts: Part[] = [
  part('input-nut', 'Input nut', 'nut', 120, { inside: false }),
  part('coupling', 'Input coupling', 'shaft', 2150, { after: ['input-nut'], inside: false }),
  havhestKit.seal('input-seal', 'Input seal', { after: ['coupling'], place: 'seal:input' }),
  part('thin-ring', 'Threaded ring of the input', 'nut', 540, { after: ['coupling'], inside: false }),
  part('input-carrier', 'Input carrier', 'cup', 2950, { after: ['thin-ring'], inside: false }),
  havhestKit.ring('input-ring', 'O-ring of the input carrier', { after: ['input-carrier'] }),
  part('input-gear', 'Input gear', 'gear', 12400, {
    after: ['input-carrier'],
    place: 'gear:input-gear',
    set: 'Upper gear set',
    waitDays: 10,
  }),
  part('input-tapers', 'Input taper pair', 'bearing', 1580, {
    after: ['input-gear'],
    place: 'bearing:input-inner',
  }),
  part('input-shims', 'Input shims', 'shim', 0, { after: ['input-carrier'], place: 'stack:input' }),
  part('preload-shims', 'Input preload shims', 'shim', 0, {
    after: ['input-tapers'],
    place: 'stack:preload',
  }),
  part('shift-fork', 'Shift fork and lever', 'shift', 1190, {}),
  part('cover', 'Top cover', 'housing', 2400, { after: ['input-gear'], inside: false }),
  havhestKit.ring('cover-ring', 'O-ring of the cover', { after: ['cover'] }),
  part('top-nut', 'Top nut of the vertical shaft', 'nut', 210, { after: ['cover'] }),
  part('upper-ball', 'Top bearing', 'bearing', 870, { after: ['top-nut'], place: 'bearing:top-ball' }),
  part('cover-shims', 'Top bearing shims', 'shim', 0, { after: ['upper-ball'], place: 'stack:top' }),
  part('upper-shims', 'Upper gear shims', 'shim', 0, { after: ['upper-ball'], place: 'stack:upper' }),
  part('upper-gear', 'Upper gear', 'gear', 12400, {
    after: ['upper-ball', 'shift-fork'],
    place: 'gear:upper-gear',
    set: 'Upper gear set',
    waitDays: 10,
  }),
  part('cone', 'Cone clutch', 'clutch', 3900, {
    after: ['upper-gear'],
    set: 'Cone and springs',
    waitDays: 5,
  }),
  part('cone-springs', 'Cone springs', 'key', 3900, {
    after: ['cone'],
    set: 'Cone and springs',
    waitDays: 5,
  }),
  part('vertical-shaft', 'Vertical shaft', 'shaft', 4700, { after: ['cone'], waitDays: 6 }),
  part('lower-gear', 'Lower gear', 'gear', 12400, {
    after: ['vertical-shaft'],
    place: 'gear:lower-gear',
    set: 'Upper gear set',
    waitDays: 10,
  }),
  part('lower-taper', 'Lower gear bearing', 'bearing', 820, {
    after: ['lower-gear'],
    place: 'bearing:lower-taper',
  }),
  part('lower-shims', 'Lower gear shims', 'shim', 0, { after: ['lower-gear'], place: 'stack:lower' }),
  havhestKit.seal('vertical-seal', 'Vertical shaft seal', {
    after: ['vertical-shaft'],
    place: 'seal:vertical',
  }),
  havhestKit.ring('plug-gaskets', 'Gaskets of drain and vent', { count: 2 }),
  part('housing', 'Upper case', 'housing', 15100, { waitDays: 21, inside: false }),
]
