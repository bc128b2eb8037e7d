import { patternRead } from '@moray/core/contact/pattern-read'
import { toothContact } from '@moray/core/contact/tooth-contact'
import { faultRank } from '@moray/core/inspection/fault-rank'
import { trialUpdate } from '@moray/core/setting/trial-update'
import { calculationOf, type Calculation } from './calculation.ts'
import { PatternReadFields, ToothContactFields } from './contact-fields.ts'
import { FaultRankFields, TrialUpdateFields } from './trial-fields.ts'

/** Calculations that judge: what a pattern says, what trials teach, what a fault may be. */
export const judgingCalculations: Calculation[] = [
  calculationOf(
    'trial-update',
    'What the trials have taught about the stacks',
    TrialUpdateFields,
    trialUpdate,
    [
      ['sensitivity', '', 'mean and standard deviation for every quantity and stack'],
      ['offset', '', 'every quantity with the stacks of the first trial'],
      ['newest', '', 'every quantity with the stacks of the newest trial'],
      ['logEvidence', '', 'how well each reading was foreseen, as a log density'],
      ['warnings', '', 'trials that disagree with the ones before'],
      ['predicted', '', 'what the next build will read'],
      ['nextBuildLastProbability', 'share', 'that the next build meets every window'],
    ],
  ),
  calculationOf(
    'tooth-contact',
    'Contact patch of one flank for a setting',
    ToothContactFields,
    toothContact,
    [
      ['areaShare', 'share', 'share of the flank that can touch'],
      ['centroidLength', '', 'centre along the tooth, -1 toe to 1 heel'],
      ['centroidProfile', '', 'centre up the tooth, -1 root to 1 top'],
      ['extents', '', 'outermost points of the patch'],
      ['motionErrorMicrorad', 'microrad', 'unevenness of the motion over one pitch'],
      ['outline', '', 'line round the patch'],
      ['raster', '', 'the patch on a grid, when asked for'],
    ],
  ),
  calculationOf('pattern-read', 'A real patch read back into millimetres', PatternReadFields, patternRead, [
    ['separable', '', 'pinion and gear can be told apart'],
    ['pinionMm', 'mm', 'pinion from right, outward positive; when separable'],
    ['gearMm', 'mm', 'gear from right, outward positive; when separable'],
    ['knownMm', 'mm', 'what is known otherwise: pinion × its move + gear × its move = value, u (k = 1)'],
    ['sign', '', 'height says: 1 pinion out or gear in, -1 pinion in or gear out, 0 nothing'],
    ['pinionUMm', 'mm', 'its expanded uncertainty'],
    ['gearUMm', 'mm', 'its expanded uncertainty'],
    ['offsetMm', 'mm', 'offset of the axes, when asked for'],
    ['shaftAngleErrorDeg', 'deg', 'shaft angle error, when asked for'],
    ['residual', '', 'what is left unexplained'],
    ['kind', '', 'centred, setting (a shim mends it) or axes (none does)'],
    ['atBound', '', 'it lies at the edge of what was searched'],
    ['iterations', '', 'steps taken'],
    ['movement', '', 'wandering of the patch round the gear: runout, not setting'],
    ['pinionShimMm', 'mm', 'change of the pinion stack that brings it back'],
    ['gearShimMm', 'mm', 'change of the gear stack that brings it back'],
    ['againstGauges', 'mm', 'the patches by themselves, and whether the gauges agree'],
    ['lengthwise', '', 'earlier trials: 1 runs along the tooth as computed, -1 the other way'],
    ['meaning', '', 'what the patches mean, in words'],
  ]),
  calculationOf('fault-rank', 'Causes of a fault, ranked, and the next check', FaultRankFields, faultRank, [
    ['causes', '', 'causes with their probability and what speaks for and against'],
    ['nextChecks', 'bits', 'checks with expected information and cost'],
  ]),
]
