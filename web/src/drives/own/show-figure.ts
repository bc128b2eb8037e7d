import { rowName } from '@moray/core/drives/graph/row-name'
import { figureAt, type SheetBody } from '@moray/core/drives/own/body'
import type { FigureField } from '@moray/core/drives/own/figure-field'
import type { Source } from '@moray/core/drives/own/source'
import type { Variant } from '@moray/core/drives/own/variant'
import { SOURCE_KINDS } from '@moray/core/drives/own/source'
import type { Window } from '@moray/core/checks/window'
import type { UnitSystem } from '@moray/core/units/format'
import { CANONICAL_UNIT, type Quantity } from '@moray/core/units/factors'
import { MM_PER_INCH, UNIT_SPELLINGS } from '@moray/core/units/factors'
import type { TorqueUnit } from '@moray/core/units/torque-unit'
import { bareUnit, inBoth, rangeInBoth } from '../../ui/both-units.ts'

/** The unit that a bare number of a figure is in: what manuals print for such a thing. */
export function figureUnit(
  field: Pick<FigureField, 'shape' | 'group'>,
  first: UnitSystem,
): string | undefined {
  if (field.shape.is !== 'quantity') return undefined
  const { quantity } = field.shape
  // rolling torque is small: manuals of that system give it in inch-pounds
  if (quantity === 'torque' && first === 'imperial' && field.group === 'bearings') return 'inlb'
  return plainUnit(bareUnit(quantity, first))
}

/** As the notation spells it. */
const plainUnit = (name: string) => ({ 'ft-lb': 'ftlb', '°': 'deg', '°C': 'C' })[name] ?? name

/** Diameters, widths and mounting distances, which the example of a shim or a backlash would not fit. */
const LARGE: Record<UnitSystem, readonly [one: string, range: string]> = {
  metric: ['64.15 mm', '64.10 to 64.20 mm'],
  imperial: ['2.526in', '2.524 to 2.528in'],
}
const LARGE_FROM_MM = 100

const EXAMPLES: Record<Quantity, Record<UnitSystem, readonly [one: string, range: string]>> = {
  length: { metric: ['0.64 mm', '0.38 to 0.56 mm'], imperial: ['.025in', '.015 to .022in'] },
  torque: { metric: ['1.2Nm', '0.45 to 0.75 Nm'], imperial: ['45ftlb', '4 to 7 inlb'] },
  pressure: { metric: ['70 kPa', '60 to 80 kPa'], imperial: ['10psi', '9 to 12psi'] },
  temperature: { metric: ['20C', '20C'], imperial: ['68F', '68F'] },
  angle: { metric: ['35', '35'], imperial: ['35', '35'] },
}

/** What may be typed for a figure, as an example. */
export function figureExample({ shape }: Pick<FigureField, 'shape'>, first: UnitSystem): string {
  if (shape.is === 'quantity') {
    const large = shape.quantity === 'length' && shape.max >= LARGE_FROM_MM
    return (large ? LARGE : EXAMPLES[shape.quantity])[first][shape.range ? 1 : 0]
  }
  if (shape.is === 'number')
    return shape.unit === 'ml'
      ? first === 'imperial'
        ? '21 oz'
        : '620 ml'
      : shape.unit === ''
        ? shape.whole
          ? 'a whole number'
          : '1.2, or .03/.025'
        : shape.unit === 'teeth'
          ? ''
          : `in ${shape.unit}`
  return ''
}

/** A value of a figure for the eye, in both systems where there are two. */
export function figureText(field: Pick<FigureField, 'shape'>, value: unknown, first: UnitSystem): string {
  const { shape } = field
  if (value === undefined) return ''
  switch (shape.is) {
    case 'choice':
      return shape.options.find((o) => o.value === value)?.label ?? String(value)
    case 'words':
      return Array.isArray(value) ? value.join(', ') : String(value)
    case 'number':
      return `${Number(Number(value).toPrecision(4))}${shape.unit ? ` ${shape.unit}` : ''}`
    case 'quantity': {
      const unit = CANONICAL_UNIT[shape.quantity]
      if (!shape.range) return inBoth(Number(value), unit, first)
      return rangeInBoth(value as Window, unit, first)
    }
  }
}

/** A range as it may be typed again, its unit said once. */
function spanAsTyped({ min, max }: Window, say: (v: number) => string, unit: string): string {
  if (min === undefined) return `max ${say(max!)} ${unit}`
  if (max === undefined) return `min ${say(min)} ${unit}`
  return min === max ? `${say(min)} ${unit}` : `${say(min)} to ${say(max)} ${unit}`
}

/** A range of lengths as it may be typed: to a ten-thousandth of an inch, or a thousandth of a millimetre. */
export const rangeAsTyped = (range: Window, first: UnitSystem): string =>
  first === 'imperial'
    ? spanAsTyped(range, (mm) => (mm / MM_PER_INCH).toFixed(4), 'in')
    : spanAsTyped(range, (mm) => mm.toFixed(3), 'mm')

/** A volume as it may be typed again. */
export const volumeAsTyped = (ml: number, first: UnitSystem): string =>
  first === 'imperial' ? `${Number((ml / ML_PER_OUNCE).toFixed(2))} oz` : `${Number(ml.toFixed(1))} ml`
const ML_PER_OUNCE = 29.5735

/** A torque as it may be typed again, in the unit that the manual prints; all its digits, so that nothing is lost by rounding. */
export function torqueAsTyped(range: Window, unit: TorqueUnit = 'Nm'): string {
  const { factor } = UNIT_SPELLINGS.torque[unit.toLowerCase()]!
  const say = (nm: number) => (unit === 'Nm' ? String(nm) : String(Number((nm / factor).toPrecision(14))))
  return spanAsTyped(range, say, { Nm: 'Nm', ftlb: 'ft-lb', inlb: 'in-lb' }[unit])
}

/** Any value of a sheet for the eye; what is no figure stands as it is kept. */
export function anyText(field: FigureField | undefined, value: unknown, first: UnitSystem): string {
  if (value === undefined) return 'nothing'
  if (field) return figureText(field, value, first)
  if (typeof value === 'boolean') return value ? 'yes' : 'no'
  if (typeof value !== 'object' || value === null) return String(value as string | number)
  if (Array.isArray(value)) return value.map((v) => anyText(undefined, v, first)).join(', ') || 'none'
  const named = rowName(value)
  if (named !== undefined) return named
  return Object.entries(value)
    .map(([name, v]) => `${name} ${anyText(undefined, v, first)}`)
    .join(', ')
}

/** Where a figure comes from, in words. */
export const sourceText = (s: Source): string =>
  [
    s.where
      ? `${SOURCE_KINDS[s.kind]}, ${/^\d+$/.test(s.where) ? `page ${s.where}` : s.where}`
      : SOURCE_KINDS[s.kind],
    s.by,
    s.unchecked ? 'not checked by you' : undefined,
    s.atBench ? 'entered at the bench, not confirmed yet' : undefined,
  ]
    .filter(Boolean)
    .join(' · ')

/** The serial numbers of a variant, in words. */
export function serialsOf({ fromSerial, toSerial }: Pick<Variant, 'fromSerial' | 'toSerial'>): string {
  if (fromSerial === undefined) return toSerial === undefined ? '' : `up to ${toSerial}`
  return toSerial === undefined ? `from ${fromSerial}` : `${fromSerial} to ${toSerial}`
}

/** How many figures of a list are there. */
export const countFilled = (body: SheetBody, fields: readonly FigureField[]): number =>
  fields.filter((f) => figureAt(body, f.path) !== undefined).length
