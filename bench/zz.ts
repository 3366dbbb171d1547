import { benchProvePage } from './prove-page.ts'
import { launchOptions } from '../e2e/harness.ts'
if (process.env.NOGL) launchOptions.args.push('--disable-webgl','--disable-webgl2','--disable-3d-apis')
await benchProvePage()
process.exit(0)
