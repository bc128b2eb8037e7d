export type Hand = 'left' | 'right'
export type Act = 'loosens' | 'tightens'
export type Turn = 'clockwise' | 'anticlockwise'

/**
 * Which way a nut or ring turns, seen from the side of the tool: a right-hand thread tightens clockwise, a left-hand thread
 * anticlockwise; loosening is the other way.
 */
export function threadTurn(hand: Hand, act: Act): Turn {
  return (hand === 'right') === (act === 'tightens') ? 'clockwise' : 'anticlockwise'
}
