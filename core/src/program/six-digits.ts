/** A number as it is said in a sentence: six digits are finer than any control shows. */
export const sixDigits = (value: number): number => Number(value.toPrecision(6))
