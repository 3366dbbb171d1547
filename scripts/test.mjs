// npm test: format and lint, import rules, types, unit tests, browser tests; one closing line with the count.
import { mkdtempSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { ensureBuilt, ensureChromium, ensureInstalled, tool } from './prepare.mjs'

ensureInstalled()
ensureChromium()

const reports = mkdtempSync(join(tmpdir(), 'dogleg-reports-'))
const count = { passed: 0, failed: 0 }
const add = (passed, failed) => {
  count.passed += passed
  count.failed += failed
}

/** A step that is one check: it passes or fails as a whole. */
function check(title, ...command) {
  console.log(`\n== ${title}`)
  const passed = tool(...command)
  add(passed ? 1 : 0, passed ? 0 : 1)
}

/** A step of many tests, counted from its report; one that ends without a report, or badly without naming a test, failed. */
function suite(title, report, countIn, ...command) {
  console.log(`\n== ${title}`)
  const passed = tool(...command)
  try {
    const [good, bad] = countIn(JSON.parse(readFileSync(report, 'utf8')))
    add(good, passed ? bad : Math.max(bad, 1))
  } catch {
    add(0, 1)
  }
}

check('format and lint', '@biomejs/biome', 'bin/biome', ['check', '.'])
check('import rules', 'dependency-cruiser', 'bin/dependency-cruise.mjs', [
  '--config',
  '.dependency-cruiser.cjs',
  ...['core/src', 'server/src', 'web/src', 'bench', 'e2e'],
])
for (const project of ['core', 'server', 'web', 'e2e', 'bench'])
  check(`types of ${project}`, 'typescript', 'bin/tsc', ['-p', project])

const unitReport = join(reports, 'unit.json')
suite(
  'unit tests',
  unitReport,
  ({ numPassedTests, numFailedTests, numFailedTestSuites }) => [
    numPassedTests,
    Math.max(numFailedTests, Math.min(numFailedTestSuites, 1)),
  ],
  'vitest',
  'vitest.mjs',
  ['run', '--reporter=default', '--reporter=json', `--outputFile=${unitReport}`],
)

ensureBuilt()
const browserReport = join(reports, 'browser.json')
suite(
  'browser tests',
  browserReport,
  ({ stats, errors }) => [stats.expected + stats.flaky, stats.unexpected + (errors?.length ?? 0)],
  '@playwright/test',
  'cli.js',
  ['test', '--config', 'e2e/playwright.config.ts'],
  { env: { ...process.env, DOGLEG_BROWSER_REPORT: browserReport } },
)

console.log(`\n${count.passed} passed, ${count.failed} failed`)
process.exitCode = count.failed > 0 || count.passed === 0 ? 1 : 0
