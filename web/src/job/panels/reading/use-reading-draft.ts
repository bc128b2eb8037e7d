import type { TakeReading } from '@moray/contract/requests/reading'
import { beforeOf } from '@moray/core/setting/float-recipe'
import type { SetMeasure } from '@moray/core/setting/measures'
import { useStorage } from '@vueuse/core'
import { computed, ref, type Ref } from 'vue'
import type { ShownBuild } from '../../shown-job.ts'
import {
  type BearingDraft,
  QUARTERS,
  type RideDraft,
  EMPTY_SEAT,
  seatTexts,
  type SeatDraft,
  type SwingDraft,
} from './drafts.ts'

interface Props {
  job: { id: string }
  build: ShownBuild
  measure: SetMeasure
}

interface Clock {
  deg: number | null
}

/** The place that is read next: one that was chosen by hand even where it has a reading already, otherwise the next one that has none. */
function useNextPlace(clock: Ref<Clock>, read: Readonly<Ref<readonly number[]>>) {
  const byHand = ref(false)
  const place = computed({
    get: () => {
      const { deg } = clock.value
      if (deg === null || byHand.value || !read.value.includes(deg)) return deg
      return QUARTERS.find((d) => !read.value.includes(d)) ?? deg
    },
    set: (deg) => {
      clock.value = { deg }
      byHand.value = true
    },
  })
  return { place, byHand }
}

/** What is being typed of the next reading, and how it is set up: kept in this browser, so that neither an interruption nor a reload loses it. */
export function useReadingDraft(props: Props) {
  const key = (what: string) => `moray.draft.${props.job.id}.${props.build.number}.${props.measure.id}${what}`
  const text = useStorage(key(''), '')
  // how it is set up stays with the set-up, not with the single reading
  const ticked = useStorage<string[]>(key('.ticked'), [])
  const bearing = useStorage<BearingDraft>(key('.how'), {
    ...(props.measure.kind === 'crush' ? { as: 'gap' as const } : {}),
    drag: '',
    runIn: false,
  })
  const seat = useStorage<SeatDraft>(key('.seat'), { ...EMPTY_SEAT })
  const pair = useStorage<RideDraft>(key('.pair'), { as: 'ride-height', points: [] })
  const swung = useStorage(key('.swung'), false)
  const swing = useStorage<SwingDraft>(key('.swing'), { extreme: 'lowest', samples: [] })

  const counting = computed(() =>
    props.build.readings.filter((r) => r.measure === props.measure.id && !r.superseded),
  )
  const placesRead = computed(() => counting.value.flatMap((r) => (r.clockDeg === null ? [] : [r.clockDeg])))
  const { place, byHand } = useNextPlace(useStorage<Clock>(key('.clock'), { deg: null }), placesRead)
  /** What is read next, where the measure has several ways. */
  const as = computed(() =>
    props.measure.kind === 'seat'
      ? seat.value.as
      : props.measure.kind === 'pair-depth'
        ? pair.value.as
        : bearing.value.as,
  )
  const built = computed(() =>
    props.measure.kind === 'seat' ? props.build.state.stacks[props.measure.by] : undefined,
  )
  const before = computed(() => beforeOf(props.measure, as.value))
  /** Backlash and the gap of a cover differ from place to place. */
  const round = computed(() => props.measure.kind === 'backlash' || props.measure.kind === 'crush')
  /** Everything that says how it is taken. */
  const taken = computed((): Partial<TakeReading> => {
    const done = before.value.filter((b) => ticked.value.includes(b))
    const left = before.value.filter((b) => !ticked.value.includes(b))
    const torque = props.measure.kind === 'rolling-torque'
    const { drag, runIn } = bearing.value
    return {
      ...(done.length ? { ticked: done } : {}),
      ...(left.length ? { unticked: left } : {}),
      ...(as.value ? { as: as.value } : {}),
      ...(props.measure.kind === 'seat' ? { seat: seatTexts(seat.value, built.value) } : {}),
      ...(torque && as.value === undefined && drag.trim() ? { drag } : {}),
      ...(torque && runIn ? { runIn } : {}),
      ...(round.value && place.value !== null ? { clockDeg: place.value } : {}),
    }
  })
  /** Clears only what was sent: somebody may have gone on typing meanwhile. */
  function clear(sent: { text: string; swing?: SwingDraft; rides?: RideDraft['points'] }) {
    byHand.value = false
    if (sent.swing)
      swing.value = { ...swing.value, samples: swing.value.samples.slice(sent.swing.samples.length) }
    else if (sent.rides) pair.value = { ...pair.value, points: pair.value.points.slice(sent.rides.length) }
    else if (text.value === sent.text) text.value = ''
  }
  return {
    text,
    ticked,
    bearing,
    seat,
    pair,
    swung,
    swing,
    counting,
    placesRead,
    place,
    as,
    built,
    before,
    round,
    taken,
    clear,
  }
}
