import path from 'node:path'
import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vite'

const root = import.meta.dirname

export default defineConfig({
  root,
  plugins: [vue()],
  resolve: {
    // The server validates; the interface needs method, path and types only, and leaves Joi out.
    alias: { joi: path.join(root, 'web/kit/noSchemas.ts') },
  },
  build: { outDir: 'dist/web', emptyOutDir: true, target: 'es2022', modulePreload: { polyfill: false }, chunkSizeWarningLimit: 900 },
})
