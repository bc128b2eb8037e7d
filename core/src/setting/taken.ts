/** What a gauge is worth, in the unit of what it reads. */
export interface GaugeSpec {
  resolution: number
  mpe: number
  repeatability: number
}

/** Of case and gear: case dimension and nominal mounting distance. Of a float: the trial stack, and the clearance or preload that shall be left. mm */
export interface SeatFigures {
  caseMm?: number
  nominalMm?: number
  trialMm?: number
  clearanceMm?: number
  preloadMm?: number
}

/** How a reading was taken, where that says what it is worth. */
export interface ReadingHow {
  /** Under a cover: the gap it leaves, or the float of a ring that it does not hold. At a bearing without preload: its play. */
  as?: 'gap' | 'float' | 'play' | 'case-and-gear' | 'ride-height' | 'loose-pair'
  /** What else was measured or given of a seat, mm. */
  seat?: SeatFigures
  /** Drag of lips that were in already, Nm. */
  dragNm?: number
  /** The bearings have run already. */
  runIn?: boolean
  /** How much of what has to hold before it was ticked; the store keeps the words. What was not, in the words of that day. */
  ticked?: number
  unticked?: string[]
  /** The gauge is not made for this: its own uncertainty counts, and the record says so. */
  unsuited?: true
  /** How far along the shaft a runout was read, mm. */
  atMm?: number
  /** Of a ride-height search: places of the pinion and how far out the gear rode, both outward positive, mm. */
  rides?: [pinionMm: number, rideMm: number][]
  /** Readings along a swing, from which its turning point was found: place and reading, mm. */
  swing?: { extreme: 'highest' | 'lowest'; samples: [at: number, mm: number][] }
}

/** A reading that counts (not superseded). */
export interface TakenReading {
  /** What is judged: a depth, a backlash, a play or a crush in mm, a torque without seals in Nm. */
  value: number
  gauge: GaugeSpec
  how?: ReadingHow
  /** Where round the gear it was taken, degrees. */
  clockDeg?: number
}

/** One state of the gearcase: as found, or a trial build. Keyed by stack id and measure id. */
export interface BuildState {
  stacks: Record<string, number>
  readings: Record<string, TakenReading[]>
  /** Ids of the pieces that each stack holds, where they are known. */
  pieces?: Record<string, string[]>
  /** Measures whose readings are those of an earlier build: what sets them was not touched since. */
  carried?: string[]
}

/**
 * Several gauges may have been used on one measure; the set is only as good as the worst of them.
 */
export function worstGauge(readings: readonly TakenReading[]): GaugeSpec {
  // a drag that was taken off was read with the same gauge: both are in doubt
  // and of case and gear two lengths were read
  const twice = (r: TakenReading) => (r.how?.dragNm || r.how?.as === 'case-and-gear' ? Math.SQRT2 : 1)
  const worst = (of: (g: GaugeSpec) => number) => Math.max(0, ...readings.map((r) => twice(r) * of(r.gauge)))
  return {
    resolution: worst((g) => g.resolution),
    mpe: worst((g) => g.mpe),
    repeatability: worst((g) => g.repeatability),
  }
}
