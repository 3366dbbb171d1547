/** Browser tests that may pass only on the second try before a run in CI counts them as failed. */
const MOST_FLAKY = 1

/** Every test of a report by Playwright, with what it is called. */
function* testsIn(suites, above = []) {
  for (const { title, specs = [], suites: inner = [] } of suites) {
    const path = [...above, title]
    for (const spec of specs)
      for (const test of spec.tests) yield { name: [...path, spec.title].join(' › '), ...test }
    yield* testsIn(inner, path)
  }
}

/**
 * What a run of the browser tests comes to: how many are good and how many bad, and the lines to say at the end. A test that
 * passed only on the second try is named as flaky, with the trace of its second try; in CI more than one of them are failures.
 */
export function browserOutcome({ stats, errors = [], suites = [] }, inCi) {
  const flaky = [...testsIn(suites)].filter(({ status }) => status === 'flaky')
  const tooMany = inCi && flaky.length > MOST_FLAKY
  return {
    good: stats.expected + (tooMany ? 0 : flaky.length),
    bad: stats.unexpected + errors.length + (tooMany ? flaky.length : 0),
    lines: flaky.flatMap(({ name, results }) => {
      const trace = results
        .flatMap(({ attachments = [] }) => attachments)
        .find((attachment) => attachment.name === 'trace')?.path
      return [`flaky: ${name}`, ...(trace ? [`       its trace: ${trace}`] : [])]
    }),
  }
}
