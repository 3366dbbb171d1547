import type { LengthUnit } from '../quantity/index.ts'

/** Repeatability to assume, in the unit asked for. Common practice. */
export type Repeatability = Record<LengthUnit, number>

/** By what touches, and for a sweep by the way of doing it. */
export const REPEATABILITY = {
  'edge-finder': { inch: 0.001, mm: 0.025 },
  indicator: { inch: 0.0001, mm: 0.003 },
  sensor: { inch: 0.0004, mm: 0.01 },
  probe: { inch: 0.0001, mm: 0.003 },
  swept: { inch: 0.0002, mm: 0.005 },
  'tool-on-block': { inch: 0.0005, mm: 0.012 },
  'tool-on-feeler': { inch: 0.0005, mm: 0.012 },
  setter: { inch: 0.0001, mm: 0.003 },
  skimmed: { inch: 0.0005, mm: 0.012 },
  faced: { inch: 0.0005, mm: 0.012 },
} satisfies Record<string, Repeatability>

/** That of a method that touches with one thing. */
export function repeatabilityOf(
  method: keyof typeof REPEATABILITY | 'sensor-down' | 'probe-down',
  unit: LengthUnit,
) {
  const by = method === 'sensor-down' ? 'sensor' : method === 'probe-down' ? 'probe' : method
  return REPEATABILITY[by][unit]
}
