/** What waits in the draft of a sheet, in words. @param waiting changes that the newest version lacks */
export const waitingText = (waiting: number): string =>
  waiting === 0
    ? 'a draft of the next one is open'
    : waiting === 1
      ? '1 change waits to be published'
      : `${waiting} changes wait to be published`
