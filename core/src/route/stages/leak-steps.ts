import type { DriveSheet } from '../../drives/sheet.ts'
import { mustHold, number, pick, rightOf, text, type StepDraft } from '../make.ts'

/** A pressure test as one step of the route: what is put on, what is read, what comes off. */
export function leakStep(
  sheet: DriveSheet,
  test: 'leak-found' | 'leak-case' | 'leak-joined',
  draft: Pick<StepDraft, 'what' | 'why'> & Partial<StepDraft>,
): StepDraft {
  const { leak } = sheet.bench
  const fact = (name: string) => `${test}.${name}`
  const asFound = test === 'leak-found'
  return {
    id: test,
    tools: ['Pressure tester with its gauge', 'Thermometer on the case', `${leak.blocks} block-offs`],
    consumables: ['Gasket for the test plug', 'Soap water'],
    caution: `Never above ${leak.maxKpa} kPa: a gearcase is no pressure vessel. Glasses on, stand aside of seals and plugs.`,
    firm: true,
    timed: true,
    school: 'leak-plan',
    asks: [
      number(fact('blocks-on'), `Block-offs and adapters put on (this drive: ${leak.blocks})`, ''),
      rightOf(
        fact('gasket'),
        'Gasket of the test plug',
        { new: 'new', old: 'the old one' },
        'new',
        'An old gasket leaks by itself, and the case gets the blame. Fit a new one.',
        'plug-gasket',
      ),
      {
        ...number(fact('start'), `Pressure at the start (work at ${leak.workKpa} kPa)`, 'kPa', {
          quantity: 'pressure',
          min: -100,
        }),
        must: { fact: fact('start'), atMost: leak.maxKpa },
        wrong: `Above the sheet's ${leak.maxKpa} kPa. Let it down before anything else.`,
        slip: 'over-pressure',
      },
      number(fact('start-c'), 'Temperature of the case at the start', 'C', {
        quantity: 'temperature',
        min: -40,
        max: 80,
        optional: true,
      }),
      number(fact('minutes'), `Minutes held (this drive: ${leak.holdMin})`, 'min', { max: 10_000 }),
      rightOf(
        fact('turned'),
        `Moved meanwhile: ${leak.turns.toLowerCase()}`,
        { yes: 'yes, all of it', no: 'left still' },
        'yes',
        'A lip may hold while everything is still. Turn and shift it by hand during the test.',
      ),
      number(fact('end'), 'Pressure at the end', 'kPa', { quantity: 'pressure', min: -100 }),
      number(fact('end-c'), 'Temperature of the case at the end', 'C', {
        quantity: 'temperature',
        min: -40,
        max: 80,
        optional: true,
      }),
      mustHold(
        pick(fact('call'), 'Your call', {
          tight: 'tight',
          leaks: 'leaks',
          'too-short': 'too short to tell',
          invalid: 'cannot be: it rose',
        }),
        { fact: fact('call'), sameAs: fact('verdict') },
        'The figures, carried to one temperature, say otherwise. A case that cools lets every gauge fall; one that warms hides a leak.',
        'temperature-leak',
      ),
      ...(asFound ? [text(fact('where'), 'Where it came out, if it did', { optional: true })] : []),
      mustHold(
        number(fact('blocks-off'), 'Block-offs and adapters taken off', ''),
        { fact: fact('blocks-off'), sameAs: fact('blocks-on') },
        'Not as many came off as were put on. Find the rest before you go on.',
        'block-left',
      ),
    ],
    ...draft,
  }
}
