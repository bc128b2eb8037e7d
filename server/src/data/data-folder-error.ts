/** The data folder cannot be used; the message says why and what to do. */
export class DataFolderError extends Error {}

/** @param pid of the process that has it; `?` where it does not say */
export const inUse = (folder: string, pid: number | string): DataFolderError =>
  new DataFolderError(
    `Another Moray (process ${pid}) is using the data folder ${folder}. Stop it first, or choose another folder with MORAY_DATA.`,
  )
