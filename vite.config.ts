import path from 'node:path'
import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vite'
import { VitePWA } from 'vite-plugin-pwa'
import { chunksFor } from './scripts/kit/chunksFor'
import { fewFiles } from './scripts/kit/fewFiles'

const root = import.meta.dirname

/** What Rounds needs to open without a network. */
const rounds = chunksFor([
  'web/field/RoundsView.vue',
  'web/field/JobView.vue',
  'web/spots/SpotView.vue',
  'web/field/carry.ts',
  'web/shifts/MyTimeView.vue',
  'web/methods/MyStepsView.vue',
  'web/people/SignInView.vue',
])

/** The server validates; the interface needs method, path and types only, and leaves Joi out. */
const resolve = { alias: { joi: path.join(root, 'web/kit/noSchemas.ts') } }

/** What is opened first, by those who come once, whose line is slow, or who begin their day with it: reads no more than it needs. */
const FIRST = [
  'web/requests/CounterView.vue',
  'web/requests/TrackView.vue',
  'web/people/SignInView.vue',
  'web/desk/DeskFrame.vue',
  'web/desk/BenchView.vue',
  'web/field/carry.ts',
  'web/field/RoundsView.vue',
  'web/field/JobView.vue',
  'web/spots/SpotView.vue',
  'web/vendors/PassView.vue',
]

const nameOf = await fewFiles(root, FIRST, resolve)

export default defineConfig({
  root,
  plugins: [
    vue(),
    rounds.plugin,
    VitePWA({
      strategies: 'injectManifest',
      srcDir: 'web/field',
      filename: 'rounds.sw.ts',
      injectRegister: false,
      manifest: {
        name: 'Evrix Rounds',
        short_name: 'Rounds',
        description: 'My jobs, with and without signal.',
        id: '/rounds',
        start_url: '/rounds',
        scope: '/',
        display: 'standalone',
        theme_color: '#0F3A43',
        background_color: '#F6F3EC',
        icons: [
          { src: '/rounds-192.png', sizes: '192x192', type: 'image/png' },
          { src: '/rounds-512.png', sizes: '512x512', type: 'image/png' },
          { src: '/rounds-maskable.png', sizes: '512x512', type: 'image/png', purpose: 'maskable' },
        ],
      },
      injectManifest: {
        globPatterns: ['index.html', 'assets/*.{js,mjs,css,woff2}'],
        maximumFileSizeToCacheInBytes: 4_000_000,
        manifestTransforms: [(entries) => ({ manifest: entries.filter(({ url }) => url === 'index.html' || rounds.needed.has(url)), warnings: [] })],
      },
    }),
  ],
  resolve,
  build: {
    outDir: 'dist/web',
    emptyOutDir: true,
    target: 'es2022',
    modulePreload: { polyfill: false },
    chunkSizeWarningLimit: 900,
    rolldownOptions: {
      preserveEntrySignatures: false,
      output: { codeSplitting: { groups: [{ name: nameOf, debugName: 'shared', includeDependenciesRecursively: false }] } },
    },
  },
})
