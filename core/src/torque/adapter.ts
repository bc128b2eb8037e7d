import { InputError, refuse } from '../checks/input-error.ts'
import { finite, positive } from '../checks/numbers.ts'

export interface TorqueAdapterInput {
  targetNm: number
  /** From the centre of the drive to the middle of the grip. */
  wrenchLengthMm: number
  /** From the centre of the drive to the axis of the fastener. */
  offsetMm: number
  /** 0° straight out, 90° square, 180° back over the handle. @default 0 */
  angleDeg?: number
  /** Full scale of the wrench; a click wrench is usable from 20 % to 100 % of it. */
  wrenchMaxNm?: number
}

export interface TorqueAdapter {
  settingNm: number
  /** setting / target */
  factor: number
  /** The setting when the hand sits 25 mm nearer or farther: how much the hand's place matters. */
  settingAtGripMinus25Nm: number
  settingAtGripPlus25Nm: number
}

const HAND_MM = 25
const LEAST_OF_RANGE = 0.2

/**
 * Setting of a click or bending-beam wrench with an adapter: target × L / (L + E cos θ).
 * A transducer in line with the fastener needs no correction.
 * @throws InputError on lengths that cannot be, or a setting outside 20 to 100 % of the wrench's range
 */
export function torqueAdapter(input: TorqueAdapterInput): TorqueAdapter {
  const target = positive('targetNm', input.targetNm)
  const length = positive('wrenchLengthMm', input.wrenchLengthMm)
  finite('offsetMm', input.offsetMm)
  if (input.offsetMm < 0)
    refuse('offsetMm', `is ${input.offsetMm}; an offset is 0 or more, its direction is the angle`)
  const angle = finite('angleDeg', input.angleDeg ?? 0)
  if (length <= HAND_MM)
    refuse('wrenchLengthMm', `is ${length} mm; a wrench is longer than the width of a hand`)
  const reach = input.offsetMm * Math.cos((angle * Math.PI) / 180)
  if (length - HAND_MM + reach <= 0)
    refuse(
      'offsetMm',
      `is ${input.offsetMm} mm at ${angle}°: the fastener would lie behind the hand; turn the adapter or take a longer wrench`,
    )
  const at = (grip: number) => (target * grip) / (grip + reach)
  const settingNm = at(length)
  if (input.wrenchMaxNm !== undefined) {
    const max = positive('wrenchMaxNm', input.wrenchMaxNm)
    if (settingNm > max || settingNm < LEAST_OF_RANGE * max)
      throw new InputError('out-of-range', [
        {
          path: 'wrenchMaxNm',
          message: `is ${max} Nm; the setting ${settingNm.toFixed(1)} Nm needs a wrench with a full scale of ${settingNm.toFixed(0)} to ${(settingNm / LEAST_OF_RANGE).toFixed(0)} Nm (usable from 20 % to 100 %)`,
        },
      ])
  }
  return {
    settingNm,
    factor: length / (length + reach),
    settingAtGripMinus25Nm: at(length - HAND_MM),
    settingAtGripPlus25Nm: at(length + HAND_MM),
  }
}
