/** The stages of every route, in order. */
export const STAGES = [
  { id: 'receive', label: 'Receive' },
  { id: 'teardown', label: 'Take apart' },
  { id: 'inspect', label: 'Inspect' },
  { id: 'parts', label: 'Parts' },
  { id: 'press', label: 'Press' },
  { id: 'set', label: 'Set' },
  { id: 'seal', label: 'Seal' },
  { id: 'close', label: 'Close' },
  { id: 'tight', label: 'Tight' },
  { id: 'join', label: 'Put back' },
  { id: 'finish', label: 'Finish' },
]
