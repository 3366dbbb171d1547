import { dirname, join } from 'node:path'
import tailwindcss from '@tailwindcss/vite'
import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'
import { bundleReport } from './bundle-report.mjs'

const root = dirname(import.meta.dirname)

const GROUND =
  /core[\\/]src[\\/]setup[\\/](nouns|retired)\.ts|node_modules[\\/]((react|react-dom|scheduler|react-router|@tanstack[\\/][\w-]+)[\\/]|lucide-react[\\/]dist[\\/]esm[\\/](createLucideIcon|Icon|context|defaultAttributes|shared)\b)/

/** How every view asks the server, and who is at this tablet. */
const ASKING =
  /web[\\/]src[\\/]log[\\/](api|clock|listeners|operator|other-page|place|session|storage|texts)\.ts|core[\\/]src[\\/]people[\\/]may\.ts/

export default defineConfig({
  plugins: [react(), tailwindcss(), bundleReport(join(root, '.dogleg/page-bundle.json'), root)],
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
