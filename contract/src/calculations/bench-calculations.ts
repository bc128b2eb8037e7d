import { preload } from '@moray/core/bearings/preload'
import { ratio } from '@moray/core/gears/ratio'
import { leakTest } from '@moray/core/leak/leak-test'
import { rideHeight } from '@moray/core/measuring/ride-height'
import { backlashRound } from '@moray/core/measuring/backlash-round'
import { runout, shaftRunout } from '@moray/core/measuring/runout'
import { temperatureEffect } from '@moray/core/measuring/temperature'
import { crush } from '@moray/core/setting/crush'
import { threadedCarrier } from '@moray/core/setting/threaded-carrier'
import { torqueAdapter } from '@moray/core/torque/adapter'
import { lockAlignment } from '@moray/core/torque/lock-alignment'
import { torqueOrder } from '@moray/core/torque/order'
import {
  CrushFields,
  LeakTestFields,
  LockAlignmentFields,
  PreloadFields,
  RatioFields,
  RideHeightFields,
  RunoutFields,
  ThreadedCarrierFields,
  TorqueAdapterFields,
  TorqueOrderFields,
} from './bench-fields.ts'
import { calculationOf, type Calculation } from './calculation.ts'
import { BacklashRoundFields, ShaftRunoutFields, TemperatureFields } from './measuring-fields.ts'

export const benchCalculations: Calculation[] = [
  calculationOf('ride-height', 'Best depth of a pair without a known number', RideHeightFields, rideHeight, [
    ['vertexMm', 'mm', 'pinion position where the flanks fit best'],
    ['vertexUMm', 'mm', 'its expanded uncertainty, from the scatter of the points'],
    ['residualMm', 'mm', 'root mean square of what the parabola leaves'],
    ['minimum', '', 'the parabola opens upward'],
    ['inside', '', 'the best position lies among those tried'],
  ]),
  calculationOf('runout', 'Bend, ovality and nicks from readings round a shaft', RunoutFields, runout, [
    ['tirMm', 'mm', 'total indicated reading'],
    ['countedTirMm', 'mm', 'the same of the readings that count'],
    ['eccentricityMm', 'mm', 'first harmonic: bend or offset'],
    ['sineTirMm', 'mm', 'what the bend alone would read'],
    ['highAtDeg', 'deg', 'where it stands highest, from the first reading'],
    ['secondHarmonicMm', 'mm', 'ovality'],
    ['blips', '', 'readings that stand out like a nick, by index'],
    ['verdict', '', 'against the limit'],
  ]),
  calculationOf(
    'shaft-runout',
    'Where a shaft is bent, from runout at several stations',
    ShaftRunoutFields,
    ({ stations, noiseMm }: ShaftRunoutFields) => shaftRunout(stations, noiseMm ?? 0.01),
    [
      ['shape', '', 'straight, offset, skew or kink'],
      ['kinkAtMm', 'mm', 'where it is bent'],
      ['markAtDeg', 'deg', 'where to mark it: highest at the worst station'],
      ['stations', 'mm', 'runout at every station'],
      ['kinks', 'mm/mm', 'change of slope at every inner station'],
    ],
  ),
  calculationOf(
    'backlash-round',
    'Backlash round the gear: its smallest, and its runout',
    BacklashRoundFields,
    backlashRound,
    [
      ['smallestMm', 'mm', 'smallest backlash: the one that must stay above the minimum'],
      ['smallestAtDeg', 'deg', 'where it is'],
      ['largestMm', 'mm', 'largest backlash'],
      ['meanMm', 'mm', 'mean round the gear'],
      ['variationMm', 'mm', 'largest minus smallest'],
      ['runoutMm', 'mm', 'amplitude of the sine through the places'],
      ['tightAtDeg', 'deg', 'where the sine is tightest'],
      ['UMm', 'mm', 'expanded uncertainty of one place'],
      ['verdict', '', 'smallest and largest against the window'],
      ['variationVerdict', '', 'variation against its limit'],
    ],
  ),
  calculationOf(
    'temperature-effect',
    'What warmth does to a clearance',
    TemperatureFields,
    temperatureEffect,
    [
      ['clearanceChangeMm', 'mm', 'how much more it reads than at 20 °C'],
      ['uMm', 'mm', 'standard uncertainty from not knowing the temperature better'],
      ['perKelvinMm', 'mm/K', 'change per kelvin'],
    ],
  ),
  calculationOf('preload', 'Stack for a wanted rolling torque', PreloadFields, preload, [
    ['stackMm', 'mm', 'stack for the middle of the window'],
    ['slopeNmPerMm', 'Nm/mm', 'change of torque per mm of stack'],
    ['guess', '', 'the slope is a guess'],
  ]),
  calculationOf('crush', 'Stack for a wanted crush under a cover', CrushFields, crush, [
    ['stackMm', 'mm', 'stack to fit'],
  ]),
  calculationOf(
    'threaded-carrier',
    'Turns of a threaded carrier to a wanted backlash',
    ThreadedCarrierFields,
    threadedCarrier,
    [
      ['turns', '', 'turns inward; negative is outward'],
      ['degrees', 'deg', 'the same in degrees'],
      ['notchSteps', '', 'nearest whole number of notches'],
      ['backlashAtNotchMm', 'mm', 'backlash when locked there'],
      ['loosenFirst', '', 'it must go out and come in again'],
    ],
  ),
  calculationOf('torque-adapter', 'Wrench setting with an adapter', TorqueAdapterFields, torqueAdapter, [
    ['settingNm', 'Nm', 'what to set'],
    ['factor', 'share', 'setting, of the torque wanted'],
    ['settingAtGripMinus25Nm', 'Nm', 'with the hand 25 mm nearer to the drive'],
    ['settingAtGripPlus25Nm', 'Nm', 'with the hand 25 mm farther'],
  ]),
  calculationOf('torque-order', 'Order and stages of a fastener pattern', TorqueOrderFields, torqueOrder, [
    ['order', '', 'fasteners by index from 0'],
    ['passes', '', 'fraction and order of every stage'],
  ]),
  calculationOf('lock-alignment', 'Further turn until tabs meet slots', LockAlignmentFields, lockAlignment, [
    ['advanceDeg', 'deg', 'smallest further turn, never backward'],
    ['everyDeg', 'deg', 'how often the picture repeats'],
    ['coinciding', '', 'tabs that meet there'],
    ['possible', '', 'enough of them can meet'],
  ]),
  calculationOf('leak-test', 'Leak rate of a case from its pressure over time', LeakTestFields, leakTest, [
    ['compensatedDropKpa', 'kPa', 'drop at constant temperature'],
    ['slopeKpaPerMin', 'kPa/min', 'slope of the compensated pressure'],
    ['leakMlPerMin', 'ml/min', 'leak rate, standard'],
    ['leakUMlPerMin', 'ml/min', 'its expanded uncertainty'],
    ['verdict', '', 'by the rate: tight, leaks, too-short or invalid'],
    ['byManual', '', 'by the drop: passes, fails, too-close or too-short'],
    ['holdNeededMin', 'min', 'hold that resolves half the allowed rate; none within a day where null'],
    ['temperatureExplainsC', 'K', 'cooling that would explain the drop'],
    ['hidesKpaPerC', 'kPa', 'what one degree hides or feigns'],
    ['compensated', '', 'carried to one temperature'],
    ['settledAfterS', 's', 'when the pressure had settled'],
    ['readingsUsed', '', 'readings that were judged'],
    ['decay', '', 'time constant and first leak rate, when the drop is large'],
    ['better', '', 'which describes the readings better, line or decay'],
  ]),
  calculationOf('ratio', 'Which upper and lower this drive may have', RatioFields, ratio, [
    ['candidates', '', 'every combination with its ratio, and whether it matches'],
    ['measuredRatio', '', 'ratio by counting turns'],
    ['measuredURatio', '', 'its largest error'],
  ]),
]
