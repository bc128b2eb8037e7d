import { fileURLToPath } from 'node:url'

/** Folder of the migrations, from a command that runs from source or built. @param from import.meta.url of the command */
export const migrationsFolder = (from: string): string =>
  fileURLToPath(new URL(from.endsWith('.ts') ? '../../migrations' : '../migrations', from))
