/** A swing that is being read: the samples as they were typed, at even steps. */
export interface SwingDraft {
  extreme: 'highest' | 'lowest'
  samples: string[]
}
