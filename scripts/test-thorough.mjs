// npm run test:thorough: the unit tests with every property at the depth at which it was first proved. It takes some twenty minutes.
import { ensureInstalled, tool } from './prepare.mjs'

ensureInstalled()
const passed = tool('vitest', 'vitest.mjs', ['run'], { env: { ...process.env, DOGLEG_THOROUGH: '1' } })
process.exitCode = passed ? 0 : 1
