import { numbersAt } from '@dogleg/core/prepare'
import { useMemo } from 'react'
import { useOpenSetup } from '../log/open-setup.ts'
import { useMachinePrograms } from '../log/use-listed.ts'

/** The programs that are known to stand at the machine of the open setup, by their O numbers. */
export function useNumbersAt() {
  const open = useOpenSetup()
  const entries = useMachinePrograms(open)
  const { id } = open.setup
  return useMemo(() => numbersAt(entries, id), [entries, id])
}
