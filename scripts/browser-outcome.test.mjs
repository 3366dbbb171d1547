import { describe, expect, it } from 'vitest'
import { browserOutcome } from './browser-outcome.mjs'

const flaky = (title) => ({
  title,
  tests: [
    {
      status: 'flaky',
      results: [
        { status: 'failed', attachments: [] },
        { status: 'passed', attachments: [{ name: 'trace', path: `/tmp/${title}/trace.zip` }] },
      ],
    },
  ],
})
const passed = { title: 'good', tests: [{ status: 'expected', results: [{ status: 'passed' }] }] }
const report = (...names) => ({
  stats: { expected: 1, unexpected: 0, flaky: names.length },
  suites: [{ title: 'a.spec.ts', specs: [passed], suites: [{ title: 'inner', specs: names.map(flaky) }] }],
})

describe('a run of the browser tests', () => {
  it('names a test that passed only on the second try, with its trace', () => {
    expect(browserOutcome(report('slow'), true)).toEqual({
      good: 2,
      bad: 0,
      lines: ['flaky: a.spec.ts › inner › slow', '       its trace: /tmp/slow/trace.zip'],
    })
  })

  it('fails in CI where that happened to more than one, and only there', () => {
    expect(browserOutcome(report('slow', 'slower'), true)).toMatchObject({ good: 1, bad: 2 })
    expect(browserOutcome(report('slow', 'slower'), false)).toMatchObject({ good: 3, bad: 0 })
  })

  it('counts what failed, and what went wrong outside of any test', () => {
    const stats = { expected: 3, unexpected: 2, flaky: 0 }
    expect(browserOutcome({ stats, suites: [], errors: [{}] }, false)).toEqual({ good: 3, bad: 3, lines: [] })
  })
})
