import { dirname, join } from 'node:path'
import tailwindcss from '@tailwindcss/vite'
import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'
import { VitePWA } from 'vite-plugin-pwa'
import { bundleReport } from './bundle-report.mjs'

const root = dirname(import.meta.dirname)

const GROUND =
  /core[\\/]src[\\/]setup[\\/](nouns|retired)\.ts|node_modules[\\/]((react|react-dom|scheduler|react-router|@tanstack[\\/][\w-]+)[\\/]|lucide-react[\\/]dist[\\/]esm[\\/](createLucideIcon|Icon|context|defaultAttributes|shared)\b)/

/** How every view asks the server, and who is at this tablet. */
const ASKING =
  /web[\\/]src[\\/]log[\\/](api|clock|listeners|operator|other-page|place|session|storage|texts)\.ts|core[\\/]src[\\/]people[\\/]may\.ts/

/** The page as an app that a tablet keeps: what it is called there, and all of its files. */
const INSTALLED = {
  strategies: 'generateSW',
  // The page asks for it itself, once the first screen stands; a newer one waits until it is taken.
  injectRegister: null,
  registerType: 'prompt',
  manifest: {
    id: '/',
    name: 'Dogleg',
    short_name: 'Dogleg',
    description: 'Setups as chains of facts that go stale: work offsets, holding and readiness',
    start_url: '/',
    scope: '/',
    display: 'standalone',
    background_color: '#f5edd9',
    theme_color: '#f5edd9',
    icons: [
      { src: '/icon.svg', sizes: 'any', type: 'image/svg+xml' },
      { src: '/icons/icon-192.png', sizes: '192x192', type: 'image/png' },
      { src: '/icons/icon-512.png', sizes: '512x512', type: 'image/png' },
      { src: '/icons/maskable-512.png', sizes: '512x512', type: 'image/png', purpose: 'maskable' },
    ],
  },
  workbox: {
    globPatterns: ['**/*.{js,css,html,svg,png,woff2}'],
    navigateFallback: '/index.html',
    // What the server itself answers is never the page.
    navigateFallbackDenylist: [/^\/api\//, /^\/simulated\/[^/]+\/(probe|current|sample)/],
    maximumFileSizeToCacheInBytes: 4 * 1024 * 1024,
    cleanupOutdatedCaches: true,
    clientsClaim: true,
  },
}

export default defineConfig({
  plugins: [
    react(),
    tailwindcss(),
    VitePWA(INSTALLED),
    bundleReport(join(root, '.dogleg/page-bundle.json'), root),
  ],
  server: { port: 7081, proxy: { '/api': 'http://127.0.0.1:7080' } },
  build: {
    target: 'es2022',
    assetsInlineLimit: 0,
    modulePreload: { polyfill: false },
    // What every view stands on comes in one piece, whichever view uses which part of it: each piece more is a question more.
    rolldownOptions: {
      output: {
        codeSplitting: {
          groups: [
            { name: 'ground', test: GROUND },
            { name: 'asking', test: ASKING },
          ],
        },
      },
    },
  },
})
