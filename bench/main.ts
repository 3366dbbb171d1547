import { benchCode } from './code.ts'
import { benchDerive } from './derive.ts'
import { benchFirstLoad } from './first-load.ts'
import { benchGauge } from './gauge.ts'
import { benchHold } from './hold.ts'
import { benchProgram } from './program.ts'
import { benchProvePage } from './prove-page.ts'
import { anyMissed } from './report.ts'
import { benchRun } from './run.ts'
import { benchSimulated } from './simulated.ts'
import { benchZero } from './zero.ts'

benchDerive()
benchHold()
benchZero()
benchProgram()
benchCode()
benchGauge()
benchRun()
benchSimulated()
await benchFirstLoad()
await benchProvePage()
process.exitCode = anyMissed() ? 1 : 0
