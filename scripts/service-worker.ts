import { generateSW } from 'workbox-build'

/**
 * Writes the service worker: it keeps every file of the build and the page itself, so that after the first visit everything works
 * without the server. A new one waits until it is asked for; what is open goes on with the old.
 * @param revision changes with every build, as the page does
 */
export async function writeServiceWorker(publicFolder: string, revision: string): Promise<void> {
  const { warnings } = await generateSW({
    globDirectory: publicFolder,
    globPatterns: ['**/*.{js,css,woff2,svg,png,webmanifest}'],
    // Few ever drop a PDF, and its reader is as large as the program: it is fetched when the first one comes.
    globIgnores: ['sw.js', 'workbox-*.js', '_nuxt/pdf*'],
    swDest: `${publicFolder}/sw.js`,
    // Files of the build carry a hash in their names.
    dontCacheBustURLsMatching: /^_nuxt\//,
    additionalManifestEntries: [{ url: '/', revision }],
    navigateFallback: '/',
    navigateFallbackDenylist: [/^\/api\//],
    cleanupOutdatedCaches: true,
    clientsClaim: true,
    skipWaiting: false,
    inlineWorkboxRuntime: true,
    sourcemap: false,
    mode: 'production',
    maximumFileSizeToCacheInBytes: 8 * 1024 * 1024,
  })
  for (const warning of warnings) console.warn(warning)
}
