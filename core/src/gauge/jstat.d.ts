/** The distributions that Dogleg takes from jstat. */
declare module 'jstat' {
  interface Distribution {
    /** Value below which a share lies. */
    inv: (share: number, ...parameters: number[]) => number
    /** Share that lies below a value. */
    cdf: (value: number, ...parameters: number[]) => number
  }
  const jstat: { jStat: { chisquare: Distribution; normal: Distribution; studentt: Distribution } }
  export default jstat
}
