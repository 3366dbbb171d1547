import { ensureServerBuilt } from '../../../scripts/prepare.mjs'

/** Before the tests: the server is built, unless its sources are those of the last build. */
export const setup = () => ensureServerBuilt()
