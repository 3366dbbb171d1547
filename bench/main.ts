import { benchCode } from './code.ts'
import { benchDerive } from './derive.ts'
import { benchGauge } from './gauge.ts'
import { benchHold } from './hold.ts'
import { benchProgram } from './program.ts'
import { benchProvePage } from './prove-page.ts'
import { table } from './report.ts'
import { benchRun } from './run.ts'
import { benchShop } from './shop.ts'
import { benchSimulated } from './simulated.ts'
import { benchSlowTablet } from './slow-tablet.ts'
import { benchTablets } from './tablets.ts'
import { benchZero } from './zero.ts'

benchDerive()
benchHold()
benchZero()
await benchProgram()
benchCode()
benchGauge()
benchRun()
benchSimulated()
await benchProvePage()
await benchSlowTablet()
await benchTablets()
await benchShop()
process.exitCode = table() ? 0 : 1
