import { numbersAt } from '@dogleg/core/prepare'
import { useMemo } from 'react'
import { useOpenSetup } from '../log/open-setup.ts'

/** The programs that are known to stand at the machine of the open setup, by their O numbers. */
export function useNumbersAt() {
  const { setup, machineEntries } = useOpenSetup()
  return useMemo(() => numbersAt(machineEntries, setup.id), [machineEntries, setup.id])
}
