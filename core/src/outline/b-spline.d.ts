declare module 'b-spline' {
  /** The point of a spline at a share (0 to 1) of its domain; rational where it is given weights. */
  export default function interpolate(
    t: number,
    degree: number,
    points: readonly (readonly number[])[],
    knots?: readonly number[],
    weights?: readonly number[],
  ): number[]
}
