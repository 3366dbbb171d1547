import { ensurePageBuilt } from './prepare.mjs'

/** Before the budgets are looked at: the page is built, unless its sources are those of the last build. */
export const setup = () => ensurePageBuilt()
