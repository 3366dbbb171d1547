import { readFileSync, writeFileSync } from 'node:fs'
import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Stryker } from '@stryker-mutator/core'
import { ensureInstalled, root } from './prepare.mjs'

// Changes the arithmetic and the comparisons of a room of core one at a time, and runs the tests that reach each change:
// `npm run mutate geometry`, `npm run mutate prove/rapid.ts`. A change that no test of the room notices is named with its place.

const USAGE = 'npm run mutate ROOM [FILE...]: a folder of core/src, or files of it, such as prove/rapid.ts'

/** What is changed: sums, products, signs, comparisons, min and max. Everything else is left alone. */
const LEFT_ALONE = [
  'ArrayDeclaration',
  'ArrowFunction',
  'BlockStatement',
  'BooleanLiteral',
  'ConditionalExpression',
  'LogicalOperator',
  'MethodExpression',
  'ObjectLiteral',
  'OptionalChaining',
  'Regex',
  'StringLiteral',
  'UpdateOperator',
]

const COMPARISONS = new Set(['EqualityOperator'])

/** Changes that make no difference, with the reason why: by file, the changed text, what it became, and what its line has. */
const SAME = JSON.parse(readFileSync(join(root, 'scripts/mutate-same.json'), 'utf8'))

const asked = process.argv.slice(2)
if (asked.length === 0) {
  console.error(USAGE)
  process.exit(2)
}
await ensureInstalled()

const globs = asked.flatMap((each) =>
  each.endsWith('.ts')
    ? [`core/src/${each}`]
    : [
        `core/src/${each}/**/*.ts`,
        `!core/src/${each}/**/*.test.ts`,
        `!core/src/${each}/**/testing*.ts`,
        // Where things stand in a picture is looked at in the picture.
        `!core/src/${each}/**/*sketch.ts`,
      ],
)
/** Tests of a room are those beside its files. */
const rooms = [
  ...new Set(asked.map((each) => (each.endsWith('.ts') ? each.slice(0, each.lastIndexOf('/')) : each))),
]
process.env.MUTATE_TESTS = rooms.map((room) => `core/src/${room}/**/*.test.ts`).join(' ')
process.chdir(root)

/** The changes of some files or lines, each with what came of it. Properties are tried with so many times fewer cases. */
async function changesOf(mutate, fewer) {
  process.env.MUTATE_FEWER = String(fewer)
  const began = performance.now()
  const folder = await mkdtemp(join(tmpdir(), 'dogleg-mutate-'))
  const results = await new Stryker({
    mutate,
    testRunner: 'vitest',
    plugins: ['@stryker-mutator/vitest-runner'],
    vitest: { configFile: 'scripts/mutate-vitest.config.mjs', related: true },
    mutator: { excludedMutations: LEFT_ALONE },
    coverageAnalysis: 'perTest',
    reporters: ['clear-text'],
    clearTextReporter: { logTests: false, reportTests: false, reportMutants: false, reportScoreTable: false },
    concurrency: 2,
    timeoutMS: 10_000,
    timeoutFactor: 2,
    tempDirName: folder,
    checkers: [],
    allowEmpty: true,
    disableTypeChecks: false,
    ignorePatterns: ['docs', 'e2e', 'server', 'web', 'bench', 'test-results', '.data'],
    logLevel: 'error',
  }).runMutationTest()
  await rm(folder, { recursive: true, force: true })
  const tried = results.filter(({ status }) => status !== 'Ignored')
  console.log(`${tried.length} changes in ${Math.round((performance.now() - began) / 1000)} s`)
  return results
}

const files = new Map()
function linesOf(fileName) {
  if (!files.has(fileName)) files.set(fileName, readFileSync(fileName, 'utf8').split('\n'))
  return files.get(fileName)
}

/** The text that was changed. Lines and columns count from 1. */
function sourceOf({ fileName, location: { start, end } }) {
  const lines = linesOf(fileName)
  const [from, to] = [start.column - 1, end.column - 1]
  return start.line === end.line
    ? lines[start.line - 1].slice(from, to)
    : `${lines[start.line - 1].slice(from).trim()} ...`
}

const place = ({ fileName }) => fileName.slice(fileName.indexOf('core/src/') + 'core/src/'.length)
/** What was named of a change, if it was: the changed text, what it became and, where that is not enough, what its line has. */
const named = (mutant) =>
  SAME[place(mutant)]?.find(
    ({ was, becomes, line = '' }) =>
      was === sourceOf(mutant) &&
      becomes === mutant.replacement &&
      linesOf(mutant.fileName)[mutant.location.start.line - 1].includes(line),
  )
const met = new Set()
const survives = ({ status }) => status === 'Survived' || status === 'NoCoverage'
const sameChange = (a, b) =>
  a.fileName === b.fileName &&
  a.replacement === b.replacement &&
  a.location.start.line === b.location.start.line &&
  a.location.start.column === b.location.start.column

/** First with few cases of each property; what lives through that and is not named, once more with more of them. */
const results = await changesOf(globs, 10)
const again = results.filter((mutant) => mutant.status === 'Survived' && !named(mutant))
if (again.length > 0) {
  const lines = [
    ...new Set(
      again.map(
        (mutant) => `core/src/${place(mutant)}:${mutant.location.start.line}-${mutant.location.end.line}`,
      ),
    ),
  ]
  const closer = await changesOf(lines, 3)
  for (const mutant of again) {
    const found = closer.find((each) => sameChange(each, mutant))
    if (found && !survives(found)) mutant.status = found.status
  }
}

const counts = { arithmetic: { dead: 0, all: 0 }, comparisons: { dead: 0, all: 0 } }
const alive = []
for (const mutant of results) {
  if (mutant.status === 'CompileError' || mutant.status === 'Ignored' || mutant.status === 'RuntimeError')
    continue
  const kind = COMPARISONS.has(mutant.mutatorName) ? 'comparisons' : 'arithmetic'
  const same = named(mutant)
  if (same) {
    met.add(same)
    continue
  }
  counts[kind].all++
  if (mutant.status === 'Killed' || mutant.status === 'Timeout') counts[kind].dead++
  else alive.push(mutant)
}
for (const mutant of alive.sort(
  (a, b) => place(a).localeCompare(place(b)) || a.location.start.line - b.location.start.line,
))
  console.log(
    `lives: ${place(mutant)}:${mutant.location.start.line}  ${sourceOf(mutant)}  ->  ${mutant.replacement}${mutant.status === 'NoCoverage' ? '  (no test comes here)' : ''}`,
  )
for (const file of new Set(results.map(place)))
  for (const each of SAME[file] ?? [])
    if (!met.has(each)) console.log(`named, but no longer there: ${file}  ${each.was}  ->  ${each.becomes}`)
const share = ({ dead, all }) => (all === 0 ? '-' : `${Math.round((100 * dead) / all)} %`)
for (const [kind, count] of Object.entries(counts))
  console.log(`${kind}: ${count.dead} of ${count.all} die, ${share(count)}`)
const { MUTATE_REPORT } = process.env
if (MUTATE_REPORT) writeFileSync(MUTATE_REPORT, JSON.stringify({ asked, counts }))
