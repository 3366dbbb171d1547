import { describe, expect, it } from 'vitest'
import { unitOutcome } from './unit-outcome.mjs'

const test = (fullName, status, ...failureMessages) => ({ fullName, status, failureMessages })
const file = (name, status, message, ...assertionResults) => ({
  name: `/dogleg/${name}`,
  status,
  message,
  assertionResults,
})
const outcome = (numPassedTests, ...testResults) => unitOutcome({ numPassedTests, testResults }, '/dogleg')

describe('a run of the unit tests', () => {
  it('counts what passed, and says nothing of it', () => {
    expect(outcome(1, file('a.test.ts', 'passed', '', test('is right', 'passed')))).toEqual({
      good: 1,
      bad: 0,
      lines: [],
    })
  })

  it('names each test that failed, with the head of why', () => {
    const failed = file(
      'a.test.ts',
      'failed',
      '',
      test('is right', 'passed'),
      test('is wrong', 'failed', 'expected 1 to be 2\n    at a.test.ts:3'),
      test('is wrong too', 'failed'),
    )
    expect(outcome(1, failed)).toEqual({
      good: 1,
      bad: 2,
      lines: [
        'failed: a.test.ts › is wrong',
        '        expected 1 to be 2',
        'failed: a.test.ts › is wrong too',
        '        ',
      ],
    })
  })

  it('tells a failed property’s seed and counterexample, so that it can be run again', () => {
    const property = file(
      'e.test.ts',
      'failed',
      '',
      test(
        'holds',
        'failed',
        'Error: Property failed after 59 tests\n{ seed: 2, path: "58" }\nCounterexample: [3]\nShrunk 5 time(s)\nHint: more\n\nStack',
      ),
    )
    expect(outcome(0, property).lines).toEqual([
      'failed: e.test.ts › holds',
      '        Error: Property failed after 59 tests',
      '        { seed: 2, path: "58" }',
      '        Counterexample: [3]',
      '        Shrunk 5 time(s)',
    ])
  })

  it('names a file whose tests did not run, because a hook or a module failed, once', () => {
    const hook = file(
      'b.test.ts',
      'failed',
      'Hook timed out in 100ms.\nIf this is a long-running hook',
      test('x', 'skipped'),
      test('y', 'skipped'),
    )
    // A hook within a describe fails without a message of its own.
    const inner = file('c.test.ts', 'failed', '', test('z', 'skipped'))
    const missing = file('d.test.ts', 'failed', "Cannot find module './e.ts'")
    expect(outcome(0, hook, inner, missing)).toEqual({
      good: 0,
      bad: 3,
      lines: [
        'failed: b.test.ts as a whole, 2 of its tests did not run',
        '        Hook timed out in 100ms.',
        '        If this is a long-running hook',
        'failed: c.test.ts as a whole, 1 of its tests did not run',
        'failed: d.test.ts as a whole, 0 of its tests did not run',
        "        Cannot find module './e.ts'",
      ],
    })
  })
})
