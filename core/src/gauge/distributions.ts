// @ts-expect-error jstat comes without types
import jstat from 'jstat'

interface Distribution {
  /** Value below which a share lies. */
  inv: (share: number, ...parameters: number[]) => number
  /** Share that lies below a value. */
  cdf: (value: number, ...parameters: number[]) => number
}

/** The distributions that are needed, by jstat: chi-square and Student's t by degrees of freedom, normal by mean and deviation. */
export const {
  chisquare,
  normal,
  studentt,
}: { chisquare: Distribution; normal: Distribution; studentt: Distribution } = jstat.jStat
