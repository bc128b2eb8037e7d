import { readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import vue from '@vitejs/plugin-vue'
import { defineConfig, type Plugin } from 'vite'

const server = `http://127.0.0.1:${process.env.PORT ?? 4747}`

/** Below this a file is sent as it is, bytes. */
const WORTH_COMPRESSING = 1024

/** Pre-compresses static assets at build time; the server sends the compressed file as it lies there. */
const compressed = (): Plugin => ({
  name: 'compressed',
  apply: 'build',
  writeBundle({ dir }) {
    const assets = join(dir!, 'assets')
    for (const name of readdirSync(assets)) {
      const path = join(assets, name)
      if (/\.(js|css|svg)$/.test(name) && statSync(path).size >= WORTH_COMPRESSING)
        writeFileSync(`${path}.gz`, gzipSync(readFileSync(path), { level: 9 }))
    }
  },
})

export default defineConfig({
  plugins: [vue(), compressed()],
  worker: { format: 'es' },
  build: {
    target: 'es2022',
    outDir: 'dist',
    emptyOutDir: true,
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 700,
    rolldownOptions: {
      output: {
        // what Moray opens with is two files; what other pages share is split by who shares it, so that no page loads what it does not need
        codeSplitting: {
          groups: [
            { name: 'frame', tags: ['$initial'], test: /node_modules/, priority: 3 },
            { name: 'start', tags: ['$initial'], priority: 2 },
            {
              name: 'shared',
              test: /[\\/](core|contract|web)[\\/]src[\\/]|node_modules[\\/](?!echarts|vue-echarts|zrender|three)/,
              minShareCount: 2,
              entriesAware: true,
              entriesAwareMergeThreshold: 30_000,
              priority: 1,
            },
          ],
        },
      },
    },
  },
  server: {
    port: 5173,
    strictPort: true,
    proxy: { '/api': { target: server, changeOrigin: true, headers: { origin: server } } },
  },
  logLevel: 'warn',
})
