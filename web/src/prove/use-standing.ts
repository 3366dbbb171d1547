import type { MachineKind } from '@dogleg/core/machine'
import { pressOf } from '@dogleg/core/prove'
import type { LengthUnit } from '@dogleg/core/quantity'
import { useMemo, useSyncExternalStore } from 'react'
import type { Stepper } from './stepper.ts'

/** Where stepping stands, what the next press does from there, and what is said of it. */
export function useStanding(
  stepper: Stepper,
  { unit, machine }: { unit: LengthUnit; machine: { kind: MachineKind } },
) {
  const standing = useSyncExternalStore(stepper.subscribe, stepper.get)
  const { proof, block } = standing
  const lathe = machine.kind === 'lathe'
  const press = useMemo(() => {
    if (!proof) return undefined
    const { program, speeds, top, findings, bodies, lengths } = proof
    return pressOf({ motion: program.motion, unit, speeds, lathe, top, findings, bodies, lengths }, block)
  }, [proof, block, unit, lathe])
  const here = useMemo(() => {
    if (!proof || !press) return []
    const { from, to } = press.rows
    return proof.findings.filter(({ row, line }) =>
      row === undefined ? line === press.line : row >= from && row < to,
    )
  }, [proof, press])
  /** The line that it runs, or 0 where the program has ended. */
  const line = proof && press && block < proof.program.motion.blocks ? press.line : 0
  return { ...standing, press, here, line }
}
