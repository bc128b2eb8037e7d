import { defineConfig } from 'vite'

/**
 * Many small files, of which we use a part: inlined, a start and every thread read one. Others stay where they are: they bring files of their own
 * (PGlite its database, Piscina its thread), or are read only where they are asked for (pg).
 */
const INLINED = [
  'class-validator',
  'validator',
  'libphonenumber-js',
  'hono',
  '@hono/node-server',
  'papaparse',
]

/** The server and its threads for production: our own workspaces inlined. */
export default defineConfig({
  build: {
    ssr: true,
    target: 'node20',
    outDir: 'dist',
    emptyOutDir: true,
    sourcemap: true,
    rollupOptions: {
      input: {
        main: 'src/main.ts',
        backup: 'src/commands/backup.ts',
        check: 'src/commands/check.ts',
        restore: 'src/commands/restore.ts',
        'reset-code': 'src/commands/reset-code.ts',
        'pglite-worker': 'src/db/pglite-worker.ts',
        worker: 'src/calc/worker.ts',
      },
      output: { entryFileNames: '[name].js', chunkFileNames: 'shared-[hash].js' },
    },
  },
  ssr: { noExternal: [/^@moray\//, ...INLINED] },
  logLevel: 'warn',
})
