/**
 * How far a result moves for a small change of each input (sensitivity coefficients; JCGM 100:2008, 5.1.3), by central
 * differences. `step` is of the size of the inputs' own doubt, in their unit.
 */
export function sensitivities(
  of: (inputs: readonly number[]) => number,
  inputs: readonly number[],
  step: number,
): number[] {
  return inputs.map((input, index) => {
    const moved = (by: number) => of(inputs.map((each, i) => (i === index ? input + by : each)))
    return (moved(step) - moved(-step)) / (2 * step)
  })
}

/** By what the doubt of each input is multiplied in the result, all inputs being off by the same, independently. */
export const multiplied = (by: readonly number[]) => Math.hypot(...by)
