import type { Further } from '../further.ts'

/** What the demo's sheets say besides their figures. Invented. */
const anodes = (place: string) => [
  { id: 'anodes', place, count: 2, salt: 'zinc or aluminium', brackish: 'aluminium', fresh: 'magnesium' },
]

export const lowerFurther = (o: { partner?: string; twin?: boolean; pin?: boolean }): Further => ({
  plateAt: 'on the leg, starboard, under the bracket',
  stampsAt: 'on the flat in front of the carrier',
  ...(o.partner ? { partner: o.partner } : {}),
  trimTab: 'marked before it comes off; it goes back as it stood',
  closures: [
    {
      id: 'carrier',
      name: 'Carrier',
      kind: 'carrier',
      sealedBy: 'two O-rings',
      tested: true,
      // the small drive with the pin is closed by a cap with screws
      fasteners: [o.pin ? 'bearing-cap' : 'big-ring'],
    },
    {
      id: 'pump',
      name: 'Water pump base',
      kind: 'cover',
      sealedBy: 'gasket and two lips',
      tested: true,
      fasteners: ['pump-screws'],
    },
    {
      id: 'drain',
      name: 'Drain screw',
      kind: 'plug',
      sealedBy: 'gasket, new',
      tested: true,
      fasteners: ['drain'],
    },
    {
      id: 'vent',
      name: 'Vent screw',
      kind: 'plug',
      sealedBy: 'gasket, new',
      tested: true,
      fasteners: ['vent'],
    },
  ],
  sealDetails: [
    {
      id: 'prop-inner',
      name: 'Propeller shaft, inner',
      at: 'shaft',
      size: '30 × 42 × 7',
      order: 1,
      springs: 'inward',
      depth: 'to the shoulder',
      film: 'thin sealant',
      moves: 'turns',
    },
    {
      id: 'prop-outer',
      name: 'Propeller shaft, outer',
      at: 'shaft',
      size: '30 × 42 × 7',
      order: 2,
      springs: 'outward',
      depth: 'flush',
      film: 'thin sealant',
      moves: 'turns',
    },
    {
      id: 'carrier-rings',
      name: 'Carrier O-rings',
      at: 'carrier',
      size: '92 × 3',
      film: 'grease',
      moves: 'nothing',
    },
    { id: 'shift', name: 'Shift shaft', at: 'shift-shaft', size: '10 × 2.5', film: 'grease', moves: 'turns' },
  ],
  ...(o.twin
    ? {}
    : {
        shiftStates: [
          {
            id: 'open',
            act: 'opening' as const,
            gear: 'neutral' as const,
            rod: 'drawn up until its notch shows',
          },
          {
            id: 'close',
            act: 'closing' as const,
            gear: 'forward' as const,
            rod: 'pushed down, cam under the follower',
          },
          { id: 'join', act: 'joining' as const, gear: 'neutral' as const, rod: 'notch to the clamp screw' },
        ],
      }),
  propellers: o.twin
    ? [
        {
          id: 'front',
          name: 'Front propeller',
          place: 'front',
          held: 'tab-washer',
          turnsForward: 'left',
          washers: ['long hub', 'propeller', 'thrust washer'],
        },
        {
          id: 'rear',
          name: 'Rear propeller',
          place: 'rear',
          held: 'tab-washer',
          turnsForward: 'right',
          washers: ['short hub', 'propeller', 'tab washer'],
        },
      ]
    : [
        {
          id: 'only',
          name: 'Propeller',
          place: 'only',
          held: o.pin ? 'castle-pin' : 'tab-washer',
          turnsForward: 'right',
          washers: o.pin
            ? ['drive pin', 'propeller', 'cap']
            : ['thrust hub', 'propeller', 'spacer', 'tab washer'],
        },
      ],
  anodes: anodes('trim tab and carrier'),
  tools: [
    {
      id: 'spline-socket',
      name: 'Spline socket of the driveshaft',
      substitute: 'an old driveshaft end, clamped in a vise',
    },
    {
      id: 'lug-spanner',
      name: 'Spanner with four lugs',
      substitute: 'none: two bars slip and take the lugs along',
    },
    { id: 'carrier-puller', name: 'Carrier puller', substitute: 'two long studs and a bar, drawn evenly' },
  ],
  attitudes: [
    {
      id: 'strip',
      act: 'taking the carrier out',
      up: 'propeller shaft level',
      falls: 'the key of the carrier',
    },
    {
      id: 'forward',
      act: 'forward cup and shims',
      up: 'nose down',
      falls: 'shims out of the nose when it is turned back',
    },
  ],
  cautions: ['The carrier leaves its bore all at once: a hand under it.'],
})

export const upperFurther = (partner?: string): Further => ({
  plateAt: 'on the case, port, above the water inlet',
  stampsAt: 'on the flange to the lower',
  ...(partner ? { partner } : {}),
  closures: [
    {
      id: 'cover',
      name: 'Top cover',
      kind: 'cover',
      sealedBy: 'O-ring',
      tested: true,
      fasteners: ['cover-bolts'],
    },
    {
      id: 'input',
      name: 'Input retainer',
      kind: 'retainer',
      sealedBy: 'O-ring',
      tested: true,
      fasteners: ['big-ring'],
    },
    {
      id: 'joint',
      name: 'Joint to the lower',
      kind: 'halves',
      sealedBy: 'O-ring of the oil passage',
      tested: false,
      fasteners: ['lower-bolts'],
    },
  ],
  sealDetails: [
    {
      id: 'input',
      name: 'Input',
      at: 'shaft',
      size: '45 × 62 × 8',
      springs: 'inward',
      depth: 'flush',
      film: 'thin sealant',
      moves: 'turns',
    },
    {
      id: 'vertical',
      name: 'Vertical shaft',
      at: 'shaft',
      size: '32 × 47 × 8',
      springs: 'inward',
      depth: 'to the ring groove',
      moves: 'turns',
    },
    { id: 'passage', name: 'Oil passage', at: 'passage', size: '16 × 3', film: 'grease', moves: 'nothing' },
  ],
  tools: [
    {
      id: 'ring-spanner',
      name: 'Spanner of the input ring',
      substitute: 'none: the ring is thin and takes no drift',
    },
    {
      id: 'holding-bar',
      name: 'Holding bar of the yoke',
      substitute: 'a bar with two pins, turned by one who stands clear',
    },
  ],
  attitudes: [{ id: 'cover', act: 'crush of the top bearing', up: 'cover up, case level', falls: 'nothing' }],
  cautions: ['The input gear leans on nothing once its ring is out: hold the shaft.'],
})
