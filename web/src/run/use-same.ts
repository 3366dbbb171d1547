import { useMemo } from 'react'

/** The same object while what it says is the same: the log is asked again and again, and what was asked of it need not be. */
export function useSame<T>(value: T): T {
  const key = JSON.stringify(value)
  // biome-ignore lint/correctness/useExhaustiveDependencies: compared by what it says
  return useMemo(() => value, [key])
}
