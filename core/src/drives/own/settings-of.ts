import type { SheetBody } from './body.ts'

/** What is set on the drive, by the ids that readings have: measures, bearings that are preloaded or crushed, stacks that are set to the case. */
export function settingsOf(body: SheetBody) {
  const bearings = body.bearings.flatMap((b) => (b.setting ? [{ ...b, id: `bearing:${b.id}` }] : []))
  return {
    ids: new Set([
      ...body.measures.map((m) => m.id),
      ...bearings.map((b) => b.id),
      ...body.adjusters.map((a) => `seat:${a.id}`),
    ]),
    preloads: bearings
      .filter((b) => b.setting?.kind === 'rolling-torque' && b.setting.by === undefined)
      .map(({ id, label }) => ({ id, label })),
  }
}
