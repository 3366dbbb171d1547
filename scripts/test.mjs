// npm test: format and lint, import rules, types, unused code, unit tests, budgets, browser tests; one closing line with the count.
import { mkdtempSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { browserOutcome } from './browser-outcome.mjs'
import { checkAll } from './checks.mjs'
import { beginChromium, ensureBuilt, ensureChromium, ensureInstalled, tool } from './prepare.mjs'
import { unitOutcome } from './unit-outcome.mjs'

const chromium = beginChromium()
ensureInstalled()

const reports = mkdtempSync(join(tmpdir(), 'dogleg-reports-'))
const count = { passed: 0, failed: 0 }
const add = (passed, failed) => {
  count.passed += passed
  count.failed += failed
}

/** A step of many tests, counted from its report; one that ends without a report, or badly without naming a test, failed. */
function suite(title, report, countIn, ...command) {
  console.log(`\n== ${title}`)
  const passed = tool(...command)
  try {
    const { good, bad } = countIn(JSON.parse(readFileSync(report, 'utf8')))
    add(good, passed ? bad : Math.max(bad, 1))
  } catch {
    add(0, 1)
  }
}

console.log('\n== checks')
for (const good of await checkAll()) add(good ? 1 : 0, good ? 0 : 1)
ensureBuilt()

const unitReport = join(reports, 'unit.json')
/** Named at the end, where they are found. */
const lines = []
suite(
  'unit tests and budgets',
  unitReport,
  (report) => {
    const outcome = unitOutcome(report)
    lines.push(...outcome.lines)
    return outcome
  },
  'vitest',
  'vitest.mjs',
  ['run', '--reporter=dot', '--reporter=json', `--outputFile=${unitReport}`],
)

await ensureChromium(chromium)
const browserReport = join(reports, 'browser.json')
suite(
  'browser tests',
  browserReport,
  (report) => {
    const outcome = browserOutcome(report, Boolean(process.env.CI))
    lines.push(...outcome.lines)
    return outcome
  },
  '@playwright/test',
  'cli.js',
  ['test', '--config', 'e2e/playwright.config.ts'],
  { env: { ...process.env, DOGLEG_BROWSER_REPORT: browserReport } },
)

for (const line of lines) console.log(line)
console.log(`\n${count.passed} passed, ${count.failed} failed`)
process.exitCode = count.failed > 0 || count.passed === 0 ? 1 : 0
