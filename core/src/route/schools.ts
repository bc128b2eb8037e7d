/** Where good technicians differ: a setting of the shop, overridable on a job, recorded. The sheet stands above it. */
export interface School {
  id: string
  question: string
  options: { value: string; label: string; reason: string }[]
  /** What a shop does that has not decided. */
  usual: string
}

const school = <Id extends string>(
  id: Id,
  question: string,
  usual: string,
  ...options: [value: string, label: string, reason: string][]
) => ({
  id,
  question,
  usual,
  options: options.map(([value, label, reason]) => ({ value, label, reason })),
})

export const schools = [
  school(
    'threads',
    'Threads in salt water',
    'grease',
    ['grease', 'marine grease', 'keeps the water out and changes the clamp load least'],
    ['antiseize', 'anti-seize', 'comes apart after years; watch the torque'],
    ['locker', 'threadlocker by place', 'where a fastener is out of reach or held by a low torque'],
  ),
  school(
    'ring-nut',
    'Carrier ring nut',
    'grease',
    ['grease', 'grease generously', 'the next person has to get it out'],
    ['antiseize', 'anti-seize', 'stays put where grease washes out'],
    ['sealer', 'gasket sealer', 'keeps the thread dry'],
  ),
  school(
    'leak-plan',
    'Leak test',
    'standard',
    ['quick', 'quick', 'minutes at low pressure, turning everything; for a look'],
    ['standard', 'standard, with rotation', 'working pressure for half an hour to an hour'],
    ['long', 'long hold', 'hours, for a slow weep or a coarse gauge'],
  ),
  school(
    'pinion-place',
    'Place of the pinion',
    'gauge',
    ['gauge', 'depth gauge, confirmed by the pattern', 'two witnesses that do not share an error'],
    ['pattern', 'pattern alone', 'what the teeth do is what counts'],
    ['ride', 'ride-height search', 'when nobody knows the number'],
  ),
  school(
    'first-stack',
    'First trial stack',
    'found',
    ['found', 'as found', 'case and gears stay, so the old stack is the best guess'],
    ['sheet', "the sheet's start", 'when case or gears are new'],
  ),
  school(
    'seals',
    'Seals at an opening',
    'all',
    ['all', 'all new, whatever their age', 'labour costs more than rubber'],
    ['disturbed', 'only those disturbed', 'recorded as a departure'],
  ),
  school(
    'locks',
    'Locking parts that bend',
    'new',
    ['new', 'new', 'metal that was bent twice cracks'],
    ['again', 'straightened once, recorded', 'when none can be had'],
  ),
  school(
    'needle-cages',
    'Needle cages',
    'renew',
    ['marks', 'reuse with witness marks', 'a run-in cage that goes back as it was runs well'],
    ['renew', 'renew when in doubt', 'a cage costs less than an opening'],
  ),
  school(
    'cups',
    'Carriers and cups',
    'keep',
    ['keep', 'keep when clean', 'the fit is undisturbed'],
    ['renew', 'renew with the bearing', 'a pair that wore together'],
  ),
  school(
    'splines',
    'Spline grease',
    'thin',
    ['heavy', 'heavy on the shaft', 'it stays for years'],
    ['thin', 'thin film on both', 'nothing is left to lock the shaft'],
    ['female', 'in the female spline only', 'the end face stays clean by itself'],
  ),
  school(
    'big-ring',
    'Final torque of a big ring nut',
    'mounted',
    ['stand', 'on the stand', 'when the stand holds it'],
    ['mounted', 'after mounting', 'when the stand cannot hold it'],
  ),
  school(
    'filling',
    'Filling with oil',
    'mounted',
    ['stand', 'on the stand', 'the case is level and clamped'],
    ['mounted', 'after mounting', 'nothing is spilt in between'],
  ),
  school(
    'power-tools',
    'Power tools',
    'none',
    ['none', 'none on aluminium threads', 'a thread in aluminium is stripped once'],
    ['run-off', 'low power to run cover screws off', 'never to tighten'],
  ),
  school(
    'impeller',
    'Impeller',
    'sheet',
    ['yearly', 'yearly', 'it is cheap'],
    ['sheet', "at the sheet's interval, sooner in salt", 'looked at every year all the same'],
  ),
  school(
    'backlash-target',
    'Backlash within its window',
    'by-gears',
    ['middle', 'middle of the window', 'room on both sides'],
    ['by-gears', 'low third with new gears, middle with run-in ones', 'new gears wear in'],
  ),
  school(
    'pattern',
    'Reading the pattern',
    'braked',
    ['unloaded', 'unloaded, with compound', 'nothing bends'],
    ['braked', 'lightly braked', 'flanks stay in touch'],
  ),
  school(
    'lifting',
    'Joining the halves',
    'by-boat',
    ['lower-up', 'lift the lower to the upper', 'the upper is on the boat'],
    ['upper-down', 'set the upper on the lower', 'both are on stands'],
    ['by-boat', 'by what is still on the boat', 'as it comes'],
  ),
  school(
    'pre-lube',
    'Bearings before they turn',
    'oil',
    ['oil', 'gear oil', 'it is what they run in'],
    ['grease', 'grease', 'it stays while the case waits'],
  ),
  school(
    'seal-outside',
    'Outside of a seal',
    'sealant',
    ['sealant', 'thin sealant of the sheet', 'fills what scratches the bore has'],
    ['retaining', 'retaining compound', 'for a bore that has grown'],
    ['dry', 'dry', 'for a rubber-coated one'],
  ),
  school(
    'covers',
    'Covers with an O-ring',
    'ring',
    ['ring', 'O-ring alone', 'sealant shears an O-ring'],
    ['both', 'O-ring and sealant', 'for a pitted face'],
  ),
  school(
    'prop-nut',
    'Propeller nut',
    'low-end',
    ['feel', 'by feel and split pin', 'for small drives'],
    ['low-end', 'low end of the torque, then on to the lock', 'room to advance'],
    ['middle', 'middle of the torque, then on to the lock', 'when the tabs are many'],
  ),
  school(
    'fixtures',
    'Fixtures',
    'proper',
    ['proper', 'the proper tool', 'it holds where it should'],
    ['improvised', 'improvised, recorded', 'with what was held where'],
  ),
] as const satisfies readonly School[]

export type SchoolId = (typeof schools)[number]['id']

const byId = new Map<SchoolId, School>(schools.map((s) => [s.id, s]))

/** The school that counts: the job's own choice, else the shop's, else what is usual. */
export function chosenSchool(
  id: SchoolId,
  shop: Partial<Record<string, string>>,
  job: Partial<Record<string, string>> = {},
): { value: string; label: string; reason: string; from: 'job' | 'shop' | 'usual' } {
  const found: School = byId.get(id)!
  const pick = (value: string | undefined) => found.options.find((o) => o.value === value)
  const [own, shops] = [pick(job[id]), pick(shop[id])]
  if (own) return { ...own, from: 'job' }
  if (shops) return { ...shops, from: 'shop' }
  return { ...pick(found.usual)!, from: 'usual' }
}
