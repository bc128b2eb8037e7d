/** How the next reading of a bearing is taken; kept in this browser for as long as it stays set up. */
export interface BearingDraft {
  as?: 'gap' | 'float' | 'play' | undefined
  drag: string
  runIn: boolean
}
