import { relative } from 'node:path'

/** The head of a message, before its stack: four lines at most, which hold a failed property's seed and counterexample. */
function shortly(message) {
  const lines = message.split('\n')
  const end = lines.findIndex((line) => line.trim() === '' || /^\s+at /.test(line))
  return lines
    .slice(0, Math.min(end < 0 ? 4 : Math.max(end, 1), 4))
    .map((line) => `        ${line.slice(0, 400)}`)
}

/**
 * What a run of the unit tests comes to, from Vitest's report: how many are good and how many bad, and the lines to say at
 * the end. A file whose tests did not run (a module that is missing, a hook that failed) counts as one that is bad.
 */
export function unitOutcome({ numPassedTests, testResults }, root = process.cwd()) {
  const lines = []
  let bad = 0
  for (const { name, status, message, assertionResults } of testResults) {
    if (status === 'passed') continue
    const file = relative(root, name)
    const failed = assertionResults.filter((test) => test.status === 'failed')
    const idle = assertionResults.filter((test) => test.status !== 'failed' && test.status !== 'passed')
    for (const { fullName, failureMessages } of failed) {
      lines.push(`failed: ${file} › ${fullName}`, ...shortly(failureMessages[0] ?? ''))
    }
    if (failed.length === 0 || message !== '') {
      lines.push(`failed: ${file} as a whole, ${idle.length} of its tests did not run`)
      if (message !== '') lines.push(...shortly(message))
    }
    bad += Math.max(failed.length, 1)
  }
  return { good: numPassedTests, bad, lines }
}
