/** For each calculation its formula in words. */
export const guides: Record<string, { formula: string }> = {
  'parse-reading': {
    formula:
      'Turns × travel per turn, plus the pointer; fractions in inches; every unit by its exact factor.',
  },
  'mesh-geometry': {
    formula:
      'tan δ₂ = sin Σ / (z₁/z₂ + cos Σ). Backlash per mm = 2 tan α / cos β × R_o/R_m × sin δ of the member moved.',
  },
  'backlash-transfer': {
    formula:
      'Backlash = reading × cos of the plunger angle × pitch radius ÷ arm radius. Normal: times cos α cos β.',
  },
  depth: {
    formula:
      'Master minus drop (plus, when the plunger extends); arbor reading plus its radius; nominal plus what the feeler is off.',
  },
  'ride-height': {
    formula:
      'Ride + position × sin δ₁/sin δ₂ takes the wedge out; the lowest point of a parabola through the rest.',
  },
  runout: {
    formula:
      'A sine by least squares: twice its height is the bend. What is left beyond 4 s is a blip, not runout.',
  },
  'shaft-runout': {
    formula:
      'The bend at each station as an arrow; arrows on a straight line along the shaft are a skew, a break in that line is the kink.',
  },
  'backlash-round': {
    formula:
      'A sine through the places is the gear running out. The smallest backlash is judged, not the mean.',
  },
  'temperature-effect': {
    formula:
      'Change = (expansion of the case − of the shaft) × length × degrees from 20 °C; the sign by where the cups are held.',
  },
  judge: {
    formula:
      'u² = resolution²/12 + error²/3 + scatter²/n; in only when mean ± 2u lies wholly inside the window.',
  },
  'shim-solve': {
    formula:
      'Of all stacks the drawer allows, the highest chance of landing in every window; within half a percent of it, the fewest pieces.',
  },
  'trial-update': {
    formula:
      'Each trial moves the sensitivities from what geometry says toward what was read, by how sure each is.',
  },
  preload: {
    formula:
      'A straight line through torque against stack; the stack for the middle of the window plus seal drag.',
  },
  crush: {
    formula:
      'Shims at the bearing: trial − gap + crush, or trial + float + crush. Under the cover: trial + gap − crush, or trial − float − crush.',
  },
  'threaded-carrier': {
    formula:
      'Turns = backlash to close ÷ (lead × backlash per mm). From loose to tight, so that the thread bears on one side.',
  },
  'torque-adapter': {
    formula:
      'Setting = target × L / (L + E cos θ): longer arm, smaller setting. Square to the wrench changes nothing.',
  },
  'torque-order': {
    formula:
      'Next comes the one whose nearest finished neighbour is farthest; every stage in the same order.',
  },
  'lock-alignment': {
    formula:
      'The picture repeats every 360° / lcm(tabs, slots); the smallest further turn that brings enough together.',
  },
  'leak-test': {
    formula:
      'Absolute pressure ÷ absolute temperature stays the same in a tight case; what is lost beyond that, times volume, is the leak.',
  },
  ratio: {
    formula:
      'Driven over driver, upper times lower; a pair matches when neither the stamp nor the turns counted speak against it.',
  },
  'tooth-contact': {
    formula:
      'Where crowning and displacement leave the flanks within the thickness of the compound, as the teeth roll through mesh.',
  },
  'pattern-read': {
    formula:
      'The pinion and gear displacement whose computed patches come nearest to the two that were seen.',
  },
  'gear-from-measures': {
    formula:
      'm = D / (z + 2 k cos δ), k the addendum in modules by the usual proportions; of two diameters the weighted mean.',
  },
  'sensitivity-uncertainty': {
    formula:
      'Each figure that was counted, measured or assumed, times how strongly the sensitivity follows it; added in squares.',
  },
  'float-stack': {
    formula: 'Stack = trial + float − clearance that is left + preload that shall be there.',
  },
  'clamp-load': {
    formula:
      'Clamp load = torque ÷ (nut factor × diameter): slippery threads clamp harder at the same torque.',
  },
  'pump-volume': {
    formula: 'Volume = strokes × volume of a stroke × pressure of the air ÷ rise of the pressure.',
  },
  swing: {
    formula:
      'A parabola through the sweep; its turning point is the reading, not the mean of what the needle showed.',
  },
  reach: {
    formula:
      'All that stands before the part in the list, and what stands before that; with it the settings that it carries.',
  },
  'service-due': {
    formula:
      'Months from the last service, or the day on which the hours run out at the rate of the log: what comes first.',
  },
  'fault-rank': {
    formula:
      "Bayes' rule over a table of how often each finding goes with each cause; checks by information against cost.",
  },
}
