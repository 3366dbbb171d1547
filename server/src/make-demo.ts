import { makeDemo } from './demo.ts'

// Run by the build: what it prints is kept beside the built server as demo.json.
process.stdout.write(JSON.stringify(makeDemo(Date.now())))
