import { fileURLToPath } from 'node:url'
import tailwindcss from '@tailwindcss/vite'
import { build } from 'esbuild'

/** Worker threads of the server: each bundled into one script, which the server carries as text. */
const bundleWorkers = () =>
  build({
    entryPoints: ['derive', 'deliver'].map((name) =>
      fileURLToPath(new URL(`./server/workers/${name}.ts`, import.meta.url)),
    ),
    outdir: fileURLToPath(new URL('./.nuxt/server-workers', import.meta.url)),
    bundle: true,
    platform: 'node',
    format: 'cjs',
    logLevel: 'error',
  })

export default defineNuxtConfig({
  compatibilityDate: '2026-11-01',
  ssr: false,
  devtools: { enabled: false },
  telemetry: false,
  modules: ['@pinia/nuxt'],
  components: false,
  imports: { autoImport: false },
  css: ['~/assets/main.css'],
  app: {
    head: {
      title: 'Bellatrait',
      htmlAttrs: { lang: 'en' },
      meta: [{ name: 'viewport', content: 'width=device-width, initial-scale=1' }],
      link: [{ rel: 'icon', type: 'image/svg+xml', href: '/mark.svg' }],
    },
  },
  vite: {
    plugins: [tailwindcss()],
    worker: { format: 'es' },
    build: { target: 'es2022' },
    optimizeDeps: {
      include: [
        'konva',
        'comlink',
        '@vueuse/core',
        'd3-scale',
        'd3-shape',
        'flatbush',
        'immer',
        'saxes',
        'svgpath',
        'yup',
        'idb',
      ],
    },
  },
  nitro: {
    preset: 'node-server',
    errorHandler: '~~/server/error.ts',
    serverAssets: [
      { baseName: 'migrations', dir: './database/migrations' },
      { baseName: 'workers', dir: '../.nuxt/server-workers' },
    ],
  },
  typescript: {
    strict: true,
    tsConfig: {
      compilerOptions: { noUncheckedIndexedAccess: true },
      include: ['../core/**/*', '../cli/**/*', '../demo/**/*', '../tests/**/*'],
    },
  },
  hooks: { 'nitro:build:before': async () => void (await bundleWorkers()) },
  experimental: { appManifest: false },
})
