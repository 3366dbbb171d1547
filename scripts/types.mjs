// npm run types: checks the types of every workspace.
import { checkTypes } from './checks.mjs'

process.exitCode = (await checkTypes()) ? 0 : 1
