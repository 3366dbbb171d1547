import { defineConfig } from 'vite'

/** Bundles the server with core into one file; its packages stay where npm put them. */
export default defineConfig({
  build: { ssr: 'src/main.ts', outDir: 'dist', target: 'node20', emptyOutDir: true },
  ssr: { noExternal: [/^@dogleg\//] },
})
