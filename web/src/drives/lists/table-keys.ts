/** Where a key takes the hand in a table: the line above, below, or the next one from its first column on. */
export type Way = 'up' | 'down' | 'next'
export type TableAct = Way | 'leave' | 'earlier' | 'later'

const isText = (target: EventTarget | null) =>
  target instanceof HTMLInputElement && target.type !== 'checkbox'

/** What a key does in a table that is typed down; undefined where it is the field's own. */
export function keyFor(e: KeyboardEvent): TableAct | undefined {
  if (e.isComposing || e.ctrlKey || e.metaKey) return undefined
  switch (e.key) {
    case 'Enter':
      // a field of several lines has it for itself
      return e.target instanceof HTMLTextAreaElement ? undefined : 'next'
    case 'Escape':
      return 'leave'
    case 'ArrowUp':
    case 'ArrowDown': {
      const up = e.key === 'ArrowUp'
      if (e.altKey) return up ? 'earlier' : 'later'
      // a choice goes through its options with them
      return isText(e.target) ? (up ? 'up' : 'down') : undefined
    }
    default:
      return undefined
  }
}
