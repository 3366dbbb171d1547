/**
 * Mean range over standard deviation, by how many readings (NIST/SEMATECH e-Handbook 6.3.2; ISO 7870-2, from memory): few
 * readings say more by their range than by their deviation.
 */
const D2: Readonly<Record<number, number>> = { 2: 1.128, 3: 1.693, 4: 2.059, 5: 2.326 }

/** How many readings a method's own figure is worth, where it is pooled with what was read. By judgement. */
const OWN_READINGS = 5

/** Readings of one place that lie further apart than this many of their method's figure do not repeat as it should: 3 root 2. */
const APART = 3 * Math.SQRT2

const deviation = (values: readonly number[]) => {
  const mean = values.reduce((sum, each) => sum + each, 0) / values.length
  return Math.sqrt(values.reduce((sum, each) => sum + (each - mean) ** 2, 0) / (values.length - 1))
}

/**
 * What repeatability leaves in the mean of some readings (standard uncertainty, in their unit). One reading has what its
 * method has. Of more, what they show (range over d2 up to five, beyond that their standard deviation) is pooled with the
 * method's own figure, never below either that or half their range; the mean of n has 1 / sqrt n of it (JCGM 100:2008,
 * 4.2.3). Where they do not repeat as the method should, a mean is no better than its readings: then it is half the range
 * at least.
 */
export function doubtOfMean(values: readonly number[], repeatability: number): number {
  const times = values.length
  if (times < 2) return repeatability
  const range = Math.max(...values) - Math.min(...values)
  const d2 = D2[times]
  const shown = d2 ? range / d2 : deviation(values)
  const free = times - 1
  const pooled = Math.sqrt((OWN_READINGS * repeatability ** 2 + free * shown ** 2) / (OWN_READINGS + free))
  const few = d2 ? range / 2 : 0
  const mean = Math.max(repeatability, pooled, few, d2 ? 0 : shown) / Math.sqrt(times)
  return range > APART * repeatability ? Math.max(mean, range / 2) : mean
}
