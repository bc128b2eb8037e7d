import { defineConfig } from 'vite'

/** One file for production: our own workspaces inlined, packages from node_modules left where they are. */
export default defineConfig({
  build: { ssr: 'src/main.ts', target: 'node20', outDir: 'dist', emptyOutDir: true, sourcemap: true },
  ssr: { noExternal: [/^@moray\//] },
  logLevel: 'warn',
})
