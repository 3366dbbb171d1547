import { benchDerive } from './derive.ts'
import { benchFirstLoad } from './first-load.ts'
import { anyMissed } from './report.ts'

benchDerive()
await benchFirstLoad()
process.exitCode = anyMissed() ? 1 : 0
