const mesh = {
  pinionTeeth: 13,
  gearTeeth: 28,
  moduleMm: 4.2,
  faceWidthMm: 17,
  pressureAngleDeg: 20,
  spiralAngleDeg: 35,
}
/** The same mesh with what the contact of its teeth depends on beyond that. */
const contactMesh = { ...mesh, cutterRadiusMm: 50.7, gearAddendumMm: 2.4, pinionAddendumMm: 4.7 }

/** For each calculation an input to start from; forms, descriptions and tests read it. */
export const examples: Record<string, Record<string, unknown>> = {
  'parse-reading': {
    text: '2r 35h',
    quantity: 'length',
    dialPerTurnMm: 1,
  },
  'mesh-geometry': {
    mesh,
  },
  'backlash-transfer': {
    mesh,
    readingMm: 0.47,
    radiusMm: 38,
    member: 'pinion',
    indicatorAngleDeg: 0,
  },
  depth: {
    method: 'master-drop',
    masterMm: 50.003,
    dropMm: 11.6,
    extends: false,
  },
  'ride-height': {
    mesh,
    points: [
      {
        pinionMm: 38.2,
        rideMm: 30.15,
      },
      {
        pinionMm: 38.3,
        rideMm: 30.09,
      },
      {
        pinionMm: 38.4,
        rideMm: 30.04,
      },
      {
        pinionMm: 38.5,
        rideMm: 30.005,
      },
      {
        pinionMm: 38.6,
        rideMm: 29.985,
      },
    ],
  },
  runout: {
    readingsMm: [0.02, 0.05, 0.07, 0.06, 0.03, -0.01, -0.05, -0.06, -0.05, -0.02, 0, 0.01],
    limitMm: 0.15,
    resolutionMm: 0.01,
    mpeMm: 0.01,
  },
  'shaft-runout': {
    stations: [
      {
        atMm: 20,
        readingsMm: [0.01, 0.007, 0, -0.007, -0.01, -0.007, 0, 0.007],
      },
      {
        atMm: 90,
        readingsMm: [0.012, 0.008, 0, -0.008, -0.012, -0.008, 0, 0.008],
      },
      {
        atMm: 150,
        readingsMm: [0.09, 0.064, 0, -0.064, -0.09, -0.064, 0, 0.064],
      },
      {
        atMm: 210,
        readingsMm: [0.17, 0.12, 0, -0.12, -0.17, -0.12, 0, 0.12],
      },
    ],
    noiseMm: 0.01,
  },
  'backlash-round': {
    places: [
      {
        deg: 0,
        readings: [0.47, 0.48],
      },
      {
        deg: 90,
        readings: [0.44, 0.44],
      },
      {
        deg: 180,
        readings: [0.4, 0.41],
      },
      {
        deg: 270,
        readings: [0.45, 0.44],
      },
    ],
    resolution: 0.01,
    mpe: 0.01,
    window: {
      min: 0.38,
      max: 0.56,
    },
    variationLimitMm: 0.1,
  },
  'temperature-effect': {
    lengthMm: 110,
    tempC: 34,
    halfWidthC: 2,
    shouldered: 'outer',
  },
  judge: {
    readings: [0.46, 0.47, 0.47],
    resolution: 0.01,
    mpe: 0.01,
    repeatability: 0.005,
    window: {
      min: 0.38,
      max: 0.56,
    },
  },
  'shim-solve': {
    locations: [
      {
        id: 'pinion',
        currentMm: 0.62,
        minMm: 0.2,
        maxMm: 1.6,
        maxPieces: 4,
      },
      {
        id: 'forward',
        currentMm: 0.75,
        minMm: 0.2,
        maxMm: 1.6,
        maxPieces: 4,
      },
    ],
    quantities: [
      {
        id: 'depth',
        measured: 38.52,
        u: 0.006,
        window: {
          min: 38.37,
          max: 38.43,
        },
        target: 38.4,
        sensitivity: {
          pinion: 1,
        },
      },
      {
        id: 'backlash',
        measured: 0.62,
        u: 0.008,
        window: {
          min: 0.38,
          max: 0.56,
        },
        target: 0.47,
        sensitivity: {
          pinion: 0.6,
          forward: -1.29,
        },
      },
    ],
    pieces: [
      {
        id: 's05',
        thicknessMm: 0.05,
        count: 4,
      },
      {
        id: 's10',
        thicknessMm: 0.101,
        count: 3,
      },
      {
        id: 's20',
        thicknessMm: 0.2,
        count: 3,
      },
      {
        id: 's30',
        thicknessMm: 0.301,
        count: 2,
      },
      {
        id: 's50',
        thicknessMm: 0.501,
        count: 2,
      },
    ],
    sensitivityRelU: 0.1,
  },
  'trial-update': {
    locations: ['pinion', 'forward'],
    quantities: [
      {
        id: 'backlash',
        sensitivity: {
          pinion: 0.6,
          forward: -1.29,
        },
        relSd: 0.1,
        u: 0.008,
        window: {
          min: 0.38,
          max: 0.56,
        },
      },
    ],
    trials: [
      {
        stacks: {
          pinion: 0.62,
          forward: 0.75,
        },
        readings: {
          backlash: 0.62,
        },
      },
      {
        stacks: {
          pinion: 0.5,
          forward: 0.75,
        },
        readings: {
          backlash: 0.55,
        },
      },
    ],
    next: {
      pinion: 0.5,
      forward: 0.81,
    },
  },
  preload: {
    trials: [
      {
        stackMm: 1.35,
        torqueNm: 0.56,
      },
      {
        stackMm: 1.4,
        torqueNm: 0.94,
      },
    ],
    sealNm: 0.2,
    window: {
      min: 0.45,
      max: 0.75,
    },
  },
  crush: {
    shimsAt: 'cover',
    trialMm: 0.5,
    floatMm: 0.08,
    crushMm: 0.05,
  },
  'threaded-carrier': {
    mesh: {
      pinionTeeth: 18,
      gearTeeth: 18,
      moduleMm: 5,
      faceWidthMm: 20,
    },
    leadMm: 1.5,
    backlashMm: 0.4,
    targetMm: 0.16,
    member: 'gear',
    notches: 18,
  },
  'torque-adapter': {
    targetNm: 60,
    wrenchLengthMm: 420,
    offsetMm: 90,
    angleDeg: 0,
    wrenchMaxNm: 100,
  },
  'torque-order': {
    count: 8,
    stages: [0.5, 1],
  },
  'lock-alignment': {
    tabs: 12,
    slots: 18,
    required: 2,
    phaseDeg: 12.9,
    toleranceDeg: 1.5,
  },
  'leak-test': {
    readings: [
      {
        s: 0,
        gaugeKpa: 70,
        tempC: 24,
      },
      {
        s: 1800,
        gaugeKpa: 69.2,
        tempC: 22.4,
      },
      {
        s: 3600,
        gaugeKpa: 68.4,
        tempC: 20.8,
      },
      {
        s: 5400,
        gaugeKpa: 67.8,
        tempC: 19.5,
      },
      {
        s: 7200,
        gaugeKpa: 67.2,
        tempC: 18,
      },
    ],
    atmosphereKpa: 101.3,
    volumeMl: 650,
    allowedMlPerMin: 0.25,
    gaugeResolutionKpa: 0.1,
  },
  ratio: {
    overall: 2.2,
    upperPairs: [
      {
        id: 'upper 21:24',
        driver: 21,
        driven: 24,
      },
    ],
    lowerPairs: [
      {
        id: 'lower 14:27',
        driver: 14,
        driven: 27,
      },
      {
        id: 'lower 15:27',
        driver: 15,
        driven: 27,
      },
    ],
    inputTurns: 22,
    outputTurns: 10,
  },
  'tooth-contact': {
    mesh: contactMesh,
    side: 1,
    pinionMm: 0.03,
    gearMm: 0,
    offsetMm: 0,
    shaftAngleErrorDeg: 0,
    crownLengthMm: 0.02,
    crownProfileMm: 0.015,
    centreLength: 0,
    centreProfile: 0,
    filmMm: 0.006,
  },
  'pattern-read': {
    mesh: contactMesh,
    crownLengthMm: 0.02,
    crownProfileMm: 0.015,
    centreLength: 0,
    centreProfile: 0,
    filmMm: 0.006,
    drive: {
      length: 0.05,
      profile: 0.15,
    },
    coast: {
      length: 0.02,
      profile: 0.12,
    },
  },
  'gear-from-measures': {
    pinionTeeth: 18,
    gearTeeth: 24,
    shaftAngleDeg: 90,
    form: 'straight',
    uOutsideMm: 0.1,
    gearOutsideMm: 99.6,
    pinionOutsideMm: 79.52,
  },
  'sensitivity-uncertainty': {
    mesh: {
      pinionTeeth: 14,
      gearTeeth: 28,
      shaftAngleDeg: 90,
      moduleMm: 3.05,
      faceWidthMm: 13.4,
      pressureAngleDeg: 22.5,
      spiralAngleDeg: 0,
    },
    u: {
      pressureAngleDeg: 0,
      spiralAngleDeg: 0,
      faceWidthMm: 0.2,
      moduleRel: 0.005,
      radiusRel: 0.01,
      atArm: true,
    },
  },
  'float-stack': { trialMm: 1.07, floatMm: 0.202, clearanceMm: 0.094 },
  'clamp-load': { torqueNm: 260.9, diameterMm: 8, kFrom: 0.17, kTo: 0.12 },
  'pump-volume': { strokes: 39, strokeMl: 18.6, fromKpa: 4.5, toKpa: 55.8, atmosphereKpa: 98.2 },
  swing: {
    extreme: 'lowest',
    samples: [
      { at: -5.85, readingMm: 8.484 },
      { at: -4.21, readingMm: 7.636 },
      { at: -2.54, readingMm: 7.003 },
      { at: -0.95, readingMm: 6.606 },
      { at: 0.54, readingMm: 6.415 },
      { at: 2.11, readingMm: 6.41 },
    ],
  },
  'service-due': {
    lastOn: '2025-07-14',
    lastHours: 300,
    log: [
      { on: '2026-01-24', hours: 340 },
      { on: '2026-03-10', hours: 379 },
      { on: '2026-04-28', hours: 408 },
    ],
    factor: 1,
    months: 12,
    hours: 50,
  },
  reach: {
    parts: [
      { id: 'propeller', after: [], sets: ['propeller-nut'] },
      { id: 'ring-nut', after: ['propeller'], sets: ['ring-nut'] },
      { id: 'carrier', after: ['ring-nut'], sets: ['reverse-backlash'] },
      { id: 'seals', after: ['carrier'], sets: ['tightness'] },
    ],
    targets: ['seals'],
  },
  'fault-rank': {
    findings: ['milky-oil', 'fishing-line'],
    absent: ['leak-still'],
  },
}
