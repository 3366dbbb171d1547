import { join } from 'node:path'
import { defineConfig } from 'vite'

const source = (name: string) => join(import.meta.dirname, 'src', name)

/**
 * Bundles the server with core and its packages (one file is read in a third of the time that hundreds take), and what makes the
 * demo. Tests start several servers in one process, by `serve`. What has a binary stays where npm put it: that is chosen by platform.
 */
export default defineConfig({
  build: {
    ssr: true,
    rolldownOptions: {
      input: {
        main: source('main.ts'),
        serve: source('serve.ts'),
        'make-demo': source('make-demo.ts'),
        'logbook-command': source('logbook-command.ts'),
        'backup-jobs': source('backup/backup-jobs.ts'),
        'program-jobs': source('threads/program-jobs.ts'),
        'record-jobs': source('threads/record-jobs.ts'),
      },
      // All lie in one folder: what they share finds the migrations beside that, as its source does.
      output: { chunkFileNames: '[name]-[hash].js' },
    },
    outDir: 'dist',
    target: 'node20',
    emptyOutDir: true,
  },
  ssr: { noExternal: true, external: ['libsql', 'piscina', '@node-rs/argon2'] },
})
