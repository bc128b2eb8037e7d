import { InputError } from '@moray/core/checks/input-error'
import { isCarrier } from '@moray/core/drives/sheet'
import { changeableIn } from '@moray/core/setting/assess'
import { learnedSolverInput } from '@moray/core/setting/learned'
import type { ShimSolveInput } from '@moray/core/setting/shim-problem'
import type { ShimPlan, ShimSolveResult } from '@moray/core/setting/shim-solve'
import { useStorage } from '@vueuse/core'
import { computed, onMounted, ref, watch } from 'vue'
import { asWireError } from '../../../wire/client.ts'
import { useExperience } from '../../../wire/queries.ts'
import { useCalc } from '../../../workers/use-calc.ts'
import type { ShownBuild, ShownJob } from '../../shown-job.ts'

const toggled = (list: string[], id: string) =>
  list.includes(id) ? list.filter((k) => k !== id) : [...list, id]

/** What plans shall keep to, and which pieces and stacks that leaves. Kept in this browser. */
function usePlanWishes(props: { job: ShownJob; build: ShownBuild }) {
  /**
   * Stacks that are left as they are, since their side stays closed; pieces of one stack at most, where fewer are wanted than the sheet allows (0: as
   * it allows); pieces that are left out, and whether only those of this case are taken.
   */
  const wishes = useStorage(
    `moray.draft.${props.job.id}.${props.build.number}.wishes`,
    { kept: [] as string[], most: 0, left: [] as string[], ownOnly: false },
    undefined,
    { mergeDefaults: true },
  )
  const keep = (stack: string) =>
    (wishes.value = { ...wishes.value, kept: toggled(wishes.value.kept, stack) })
  /** Leaves a piece out of the plans, or takes it in again: bent, too soiled, or wanted elsewhere. */
  const leave = (piece: string) =>
    (wishes.value = { ...wishes.value, left: toggled(wishes.value.left, piece) })
  const leftOut = computed(() =>
    wishes.value.left.flatMap((id) => props.job.pieces.find((p) => p.id === id) ?? []),
  )
  const offered = computed(() =>
    props.job.pieces.filter(
      (p) => !wishes.value.left.includes(p.id) && (!wishes.value.ownOnly || p.origin === 'case'),
    ),
  )
  const reachable = computed(() => changeableIn(props.job.sheet, props.build.state))
  const carriers = computed(() => reachable.value.filter(isCarrier))
  /** Pieces are asked for; where carriers alone are turned there is no drawer to look through. */
  const fromDrawer = computed(() => carriers.value.length < reachable.value.length)
  return { wishes, keep, leave, leftOut, offered, reachable, carriers, fromDrawer }
}

/** The search for the next stacks: what is asked of the solver, how far it is, and what it has found. */
export function usePlanSearch(props: { job: ShownJob; build: ShownBuild }, answered: () => void) {
  const wishing = usePlanWishes(props)
  const { wishes, offered, reachable } = wishing
  const calc = useCalc()
  const taught = useExperience(
    () => props.job.sheetId,
    () => props.job.id,
  )
  const experience = computed(() => taught.taught?.experience ?? undefined)
  /** This build and all before it: each has taught something about how the case answers. */
  const builds = computed(() =>
    props.job.builds.filter((b) => b.number <= props.build.number).map((b) => b.state),
  )
  const result = ref<ShimSolveResult | null>(null)
  const failure = ref('')
  const stopped = ref(false)
  /** The best plan of a search that is still going on, or was stopped; and how much better one could be at most. */
  const soFar = ref<{ plan: ShimPlan; gap: number } | null>(null)
  watch(calc.progress, (p) => {
    if (p?.plan) soFar.value = { plan: p.plan, gap: p.gap ?? 1 }
  })
  const posed = computed((): { input: ShimSolveInput | null; why: string } => {
    // asked once it is known what earlier units have taught: two answers one after the other would only confuse
    if (!(taught.taught || taught.error)) return { input: null, why: '' }
    const { kept, most } = wishes.value
    const free = reachable.value.map((a) => a.id).filter((id) => !kept.includes(id))
    if (!free.length)
      return { input: null, why: 'Every stack is left as it is: let at least one be changed.' }
    try {
      const input = learnedSolverInput(
        props.job.sheet,
        builds.value,
        offered.value.map(({ id, thicknessMm, count, cut }) => ({
          id,
          thicknessMm,
          count,
          ...(cut ? { cut } : {}),
        })),
        kept.length ? free : undefined,
        experience.value,
      )
      const fewer = (l: ShimSolveInput['locations'][number]) =>
        most > 0 && !l.fixed && !l.stepMm ? { ...l, maxPieces: Math.min(l.maxPieces, most) } : l
      return { input: { ...input, locations: input.locations.map(fewer) }, why: '' }
    } catch (e) {
      if (e instanceof InputError) return { input: null, why: e.message }
      throw e
    }
  })
  const question = computed(() => posed.value.input)
  /** Asked anew when the readings, the drawer or the choice of stacks have changed, not at every live event. */
  const asked = computed(() => JSON.stringify(question.value))

  async function solve() {
    if (!question.value) return
    const mine = asked.value
    result.value = null
    failure.value = ''
    stopped.value = false
    soFar.value = null
    try {
      const answer = await calc.run<ShimSolveResult>('shim-solve', question.value)
      if (mine !== asked.value) return
      if (answer === 'cancelled') stopped.value = true
      else {
        result.value = answer
        answered()
      }
    } catch (e) {
      failure.value = asWireError(e).message
    }
  }
  onMounted(solve)
  watch(asked, solve)
  const why = computed(() => failure.value || posed.value.why)
  return { ...wishing, experience, builds, result, stopped, soFar, why, question, solve, calc }
}
