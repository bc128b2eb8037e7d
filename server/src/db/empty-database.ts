import { existsSync, readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'

/** Made when the server was built, and laid beside it: see tools/empty-database.mjs. */
const FILE = fileURLToPath(
  new URL(
    import.meta.url.endsWith('.ts') ? '../../dist/empty-database.tar.gz' : './empty-database.tar.gz',
    import.meta.url,
  ),
)

/** A dump of an empty database, which a new one begins with. Nothing where Moray was never built: PGlite then makes one itself, in seconds. */
export function emptyDatabase(): Blob | undefined {
  return existsSync(FILE) ? new Blob([readFileSync(FILE)], { type: 'application/x-gzip' }) : undefined
}
