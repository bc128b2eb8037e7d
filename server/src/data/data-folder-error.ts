/** The data folder cannot be used; the message says why and what to do. */
export class DataFolderError extends Error {}
