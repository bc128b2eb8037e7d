import { defineConfig } from 'vite'

/** The server and its threads for production: our own workspaces inlined, packages from node_modules left where they are. */
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
        check: 'src/commands/check.ts',
        'pglite-worker': 'src/db/pglite-worker.ts',
        worker: 'src/calc/worker.ts',
      },
      output: { entryFileNames: '[name].js', chunkFileNames: 'shared-[hash].js' },
    },
  },
  ssr: { noExternal: [/^@moray\//] },
  logLevel: 'warn',
})
