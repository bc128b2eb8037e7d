import { fileURLToPath } from 'node:url'

/** Folder of the server, from a command that runs from source or built. @param from import.meta.url of the command */
export const serverFolder = (from: string): string =>
  fileURLToPath(new URL(from.endsWith('.ts') ? '../..' : '..', from))
