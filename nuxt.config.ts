import { existsSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import tailwindcss from '@tailwindcss/vite'
import { buildServerWorker } from './scripts/server-worker'
import { withoutSideEffects } from './scripts/without-side-effects'
import { jstatUsed } from './scripts/jstat-used'
import { minified } from './scripts/minify'
import { writeServiceWorker } from './scripts/service-worker'

const here = (path: string) => fileURLToPath(new URL(path, import.meta.url))

/** A module that is needed at the desk alone: where only what runs is installed, it is not there. */
const whereInstalled = (module: string) => (existsSync(here(`./node_modules/${module}`)) ? [module] : [])

/** What makes code for the browser smaller than bundling alone. */
const smaller = () => [withoutSideEffects(), jstatUsed(), minified()]

/** The reader of PDF files has a name of its own, by which the service worker leaves it out. */
const chunkName = ({ moduleIds }: { moduleIds: readonly string[] }) =>
  `_nuxt/${moduleIds.some((id) => id.includes('/pdfjs-dist/')) ? 'pdf-' : ''}[hash].js`

export default defineNuxtConfig({
  compatibilityDate: '2026-11-01',
  modules: ['@pinia/nuxt', '@nuxtjs/color-mode', 'nuxt-security', ...whereInstalled('@nuxt/eslint')],
  // Every import is written out, so that the import directions can be read and checked.
  imports: { autoImport: false },
  components: false,
  devtools: { enabled: false },
  telemetry: false,
  css: ['~/assets/main.css'],
  // A line break between two words or links is a space, as in HTML and as the formatter takes it.
  vue: { compilerOptions: { whitespace: 'preserve' } },
  alias: { '#core': here('./core'), '#demo': here('./demo') },
  app: {
    head: {
      htmlAttrs: { lang: 'en' },
      title: 'Remetra',
      meta: [{ name: 'description', content: 'Gain staging, headroom, noise floor and latency of a recording chain' }],
      link: [
        { rel: 'icon', type: 'image/svg+xml', href: '/icon.svg' },
        { rel: 'apple-touch-icon', href: '/icon-192.png' },
        { rel: 'manifest', href: '/remetra.webmanifest' },
      ],
    },
  },
  colorMode: { classSuffix: '', preference: 'system', fallback: 'light', storageKey: 'remetra-theme' },
  // The data lives in the browser, so there is nothing to render on a server, and no second build for it.
  $production: { ssr: false },
  routeRules: {
    '/**': { ssr: false },
    // A page that asks for embedding policies of all it loads asks its workers too.
    '/_nuxt/**': {
      headers: { 'cross-origin-embedder-policy': 'require-corp', 'cross-origin-resource-policy': 'same-origin' },
    },
  },
  spaLoadingTemplate: 'loading.html',
  // No page is rendered on the server, so that there is no payload of one and no manifest of what was; the service worker knows of
  // a newer version. A place is fetched when the pointer or the focus comes to its link, not with the first load.
  experimental: {
    appManifest: false,
    payloadExtraction: false,
    emitRouteChunkError: 'manual',
    defaults: { nuxtLink: { prefetchOn: { visibility: false, interaction: true } } },
  },
  nitro: {
    compressPublicAssets: true,
    // The relay of the second screen.
    experimental: { websocket: true },
    typescript: { tsConfig: { compilerOptions: { noUncheckedIndexedAccess: true } } },
  },
  vite: {
    // Slivers that two places share are packed with what needs them first: many small files compress badly.
    $client: { build: { rollupOptions: { output: { experimentalMinChunkSize: 3000, chunkFileNames: chunkName } } } },
    vue: { features: { optionsAPI: false } },
    plugins: [...smaller(), tailwindcss()],
    // A worker is a build of its own, which the plugins above do not reach.
    worker: { format: 'es', plugins: smaller },
    // Inlined fonts would be data: addresses, which the content security policy refuses.
    build: { minify: false, cssMinify: true, assetsInlineLimit: () => false },
  },
  hooks: {
    'nitro:build:public-assets': ({ options }) => writeServiceWorker(options.output.publicDir, String(Date.now())),
    'nitro:init': (nitro) => {
      nitro.hooks.hook('compiled', async ({ options }) => {
        await buildServerWorker(options.output.serverDir)
      })
    },
    // Dialogs and the like are fetched when they are opened; hinting at all of them would load the whole program at once.
    'build:manifest': (manifest) => {
      for (const item of Object.values(manifest)) item.prefetch = false
    },
  },
  typescript: { strict: true, tsConfig: { compilerOptions: { noUncheckedIndexedAccess: true } } },
  eslint: { config: { stylistic: false } },
  security: {
    // A program on one's own machine: automation may call as often and with whatever text it likes; the API bounds bodies itself.
    rateLimiter: false,
    corsHandler: false,
    requestSizeLimiter: false,
    xssValidator: false,
    headers: {
      // The live gauge listens, for this origin only and once the browser’s user allows it.
      permissionsPolicy: { microphone: ['self'] },
      crossOriginEmbedderPolicy: 'require-corp',
      contentSecurityPolicy: {
        'default-src': ["'self'"],
        'base-uri': ["'none'"],
        'connect-src': ["'self'"],
        'font-src': ["'self'"],
        'form-action': ["'none'"],
        'frame-ancestors': ["'none'"],
        'img-src': ["'self'", 'data:', 'blob:'],
        'object-src': ["'none'"],
        'script-src': ["'self'", "'nonce-{{nonce}}'"],
        'script-src-attr': ["'none'"],
        'style-src': ["'self'", "'unsafe-inline'"],
        'manifest-src': ["'self'"],
        'worker-src': ["'self'", 'blob:'],
        'upgrade-insecure-requests': false,
      },
    },
  },
})
