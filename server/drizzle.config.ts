import { defineConfig } from 'drizzle-kit'

export default defineConfig({
  dialect: 'sqlite',
  schema: 'server/src/database/schema.ts',
  out: 'server/migrations',
})
