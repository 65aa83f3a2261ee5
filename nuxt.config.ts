import { fileURLToPath } from 'node:url'
import { createHash } from 'node:crypto'
import { readFileSync, readdirSync } from 'node:fs'
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
    define,
    logLevel: 'error',
  })

/** The version of the engine: a digest of all code that what it works out depends on. */
function engineVersion(): string {
  const digest = createHash('sha256')
  const here = fileURLToPath(new URL('.', import.meta.url))
  for (const file of [
    ...readdirSync(here + 'core', { recursive: true, encoding: 'utf8' }).sort(),
    '../package-lock.json',
  ])
    if (/\.(ts|json)$/.test(file)) digest.update(file).update(readFileSync(`${here}core/${file}`))
  return digest.digest('hex').slice(0, 16)
}

const isBuilt = process.env.NODE_ENV === 'production'
const define = { __ENGINE_VERSION__: JSON.stringify(isBuilt ? engineVersion() : '') }

export default defineNuxtConfig({
  compatibilityDate: '2026-11-01',
  ssr: false,
  devtools: { enabled: false },
  telemetry: false,
  modules: ['@pinia/nuxt', '@vite-pwa/nuxt'],
  components: false,
  imports: { autoImport: false },
  css: ['~/assets/main.css'],
  app: {
    head: {
      title: 'Bellatrait',
      htmlAttrs: { lang: 'en' },
      meta: [{ name: 'viewport', content: 'width=device-width, initial-scale=1' }],
      link: [
        { rel: 'icon', type: 'image/svg+xml', href: '/mark.svg' },
        { rel: 'manifest', href: '/manifest.webmanifest', crossorigin: 'use-credentials' },
      ],
    },
  },
  pwa: {
    strategies: 'injectManifest',
    srcDir: 'service-worker',
    filename: 'sw.ts',
    // A newer version waits until no page of this one is open.
    registerType: 'prompt',
    injectManifest: {
      globPatterns: ['_nuxt/**', 'mark.svg', 'icon-*.png', 'practice/*'],
      maximumFileSizeToCacheInBytes: 8 * 2 ** 20,
    },
    manifest: {
      name: 'Bellatrait',
      short_name: 'Bellatrait',
      description: 'An inking desk: a pencil sketch in, clean living line art out.',
      display: 'standalone',
      start_url: '/',
      background_color: '#e7e2d8',
      theme_color: '#f5f1e9',
      icons: [192, 512].map((size) => ({
        src: `/icon-${size}.png`,
        sizes: `${size}x${size}`,
        type: 'image/png',
        purpose: 'any',
      })),
    },
  },
  vite: {
    plugins: [tailwindcss()],
    worker: { format: 'es' },
    build: { target: 'es2022' },
    define,
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
      include: ['../core/**/*', '../cli/**/*', '../demo/**/*', '../scripts/**/*', '../tests/**/*'],
    },
  },
  hooks: { 'nitro:build:before': async () => void (await bundleWorkers()) },
  experimental: { appManifest: false },
})
