import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vite'

const server = `http://127.0.0.1:${process.env.PORT ?? 4747}`

export default defineConfig({
  plugins: [vue()],
  worker: { format: 'es' },
  build: {
    target: 'es2022',
    outDir: 'dist',
    emptyOutDir: true,
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 700,
  },
  server: {
    port: 5173,
    strictPort: true,
    proxy: { '/api': { target: server, changeOrigin: true, headers: { origin: server } } },
  },
  logLevel: 'warn',
})
