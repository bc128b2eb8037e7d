import { wayOf } from '../../drives/graph/unit-facts.ts'
import type { DriveSheet } from '../../drives/sheet.ts'
import { gate, pick, say, type StepDraft } from '../make.ts'
import { does } from './rebuild.ts'

const hasPump = (sheet: DriveSheet) => sheet.parts.some((p) => p.kind === 'pump')

/** The water pump goes on: its own step, wherever it came off. */
export function pumpStep(sheet: DriveSheet): StepDraft | false {
  if (!hasPump(sheet)) return false
  const pump = sheet.parts.find((p) => p.kind === 'pump')!
  const tube = wayOf(sheet.graph, 'water-tube')
  return {
    id: 'pump',
    needs: ['close', 'o-rings', 'oil-again', 'parts-in'],
    what: 'Fit the water pump',
    why: 'A vane that is missing, or folded the wrong way, overheats the engine within minutes.',
    appliesWhen: does('fit.pump', 'renew.pump'),
    place: pump.place,
    consumables: ['Glycerine or soap', 'Gasket of the pump'],
    instruct: [
      say(
        'Count the vanes of the old impeller. A missing piece sits in the tube, the cooler or the thermostat.',
      ),
      say('Feel plate and cup with a fingernail: what catches it is renewed.'),
      say('Look at the shaft seal below the pump while it is bare.'),
      say('Put the key into its slot with a little grease, so that it cannot drop.'),
      say(
        'Wet the impeller with glycerine or soap. Mineral grease swells the rubber, unless the manual asks for it.',
      ),
      say(
        'Turn the shaft the way it runs while the cup goes down, and never back afterwards: the vanes would fold over.',
      ),
      ...(tube
        ? []
        : [say('Guide the water tube into its grommet by hand: a folded grommet lets no water through.')]),
    ],
    counts: [
      gate(
        { not: { fact: 'pump.vanes', is: 'open' } },
        'A piece of the old impeller is still missing. It blocks a tube or the cooler: find it, then fit the pump.',
      ),
    ],
    asks: [
      pick('pump.vanes', 'Vanes of the old impeller', {
        all: 'all there',
        found: 'pieces missing, and found',
        open: 'pieces missing still',
      }),
      pick('pump.wear', 'Plate and cup', {
        smooth: 'smooth',
        renewed: 'grooved, renewed',
        kept: 'grooved, kept; the owner is told',
      }),
    ],
  }
}
