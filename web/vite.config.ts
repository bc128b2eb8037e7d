import { readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import vue from '@vitejs/plugin-vue'
import { defineConfig, type Plugin } from 'vite'

const server = `http://127.0.0.1:${process.env.PORT ?? 4747}`

/** Below this a file is sent as it is, bytes. */
const WORTH_SQUEEZING = 1024

/** Squeezes what is served again and again once, when it is built; the server sends it as it lies there. */
const squeezed = (): Plugin => ({
  name: 'squeezed',
  apply: 'build',
  writeBundle({ dir }) {
    const assets = join(dir!, 'assets')
    for (const name of readdirSync(assets)) {
      const path = join(assets, name)
      if (/\.(js|css|svg)$/.test(name) && statSync(path).size >= WORTH_SQUEEZING)
        writeFileSync(`${path}.gz`, gzipSync(readFileSync(path), { level: 9 }))
    }
  },
})

export default defineConfig({
  plugins: [vue(), squeezed()],
  worker: { format: 'es' },
  build: {
    target: 'es2022',
    outDir: 'dist',
    emptyOutDir: true,
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 700,
    rolldownOptions: {
      output: {
        // what pages share comes in few pieces: each request of its own costs more than the bytes it saves
        codeSplitting: {
          groups: [
            {
              name: 'frame',
              test: /node_modules[\\/](?!echarts|vue-echarts|zrender|tslib|three|primevue|@primevue|@primeuix)/,
            },
            {
              name: 'shared',
              // charts and the tooth pair stand on heavy libraries that come when somebody looks at them
              test: /[\\/](core|contract|web)[\\/]src[\\/](?!charts|drawing[\\/]tooth-pair)/,
              minShareCount: 3,
            },
            {
              name: 'controls',
              test: /node_modules[\\/](primevue|@primevue|@primeuix)[\\/]/,
              minShareCount: 4,
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
