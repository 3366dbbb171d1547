import { withNumber } from '../cycles/engraving/index.ts'

/** Serial numbers as they are engraved: `series` is the text with # for its digits. */
export const numbersSaid = ({ series, first, last }: { series: string; first: number; last: number }) =>
  first === last ? withNumber(series, first) : `${withNumber(series, first)} to ${withNumber(series, last)}`
