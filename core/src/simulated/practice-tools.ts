import type { MachineKind, ToolShape } from '../machine/index.ts'
import { convertLength, type LengthUnit, roundTo } from '../quantity/index.ts'

const INCH: readonly [
  kind: MachineKind,
  number: number,
  name: string,
  ToolShape['kind'],
  sizes: readonly [number, number, number, number, number],
][] = [
  ['mill', 3, 'Drill', 'drill', [0.201, 2.2, 2.8, 1.6, 2.2]],
  ['mill', 5, 'Spot drill, 90 deg', 'drill', [0.5, 1, 2.2, 1.6, 2.2]],
  ['mill', 7, 'End mill', 'mill', [0.5, 1.25, 1.9, 1.75, 2.6]],
  ['lathe', 1, 'Turning and facing', 'turning', [0.1, 0.3, 1.2, 1, 2]],
]

/** What the practice machines carry: usual shapes, made up. In mm machines the same tools, to a tenth. */
export const practiceTools = (kind: MachineKind, unit: LengthUnit): ToolShape[] =>
  INCH.flatMap(([on, number, name, tool, sizes]) => {
    if (on !== kind) return []
    const [diameter, flute, stickOut, holderDiameter, holderLength] = sizes.map((size) =>
      unit === 'inch' ? size : roundTo(convertLength(size, 'inch', 'mm'), 1),
    ) as [number, number, number, number, number]
    return [
      {
        shape: 2,
        id: `practice-${kind}-t${number}`,
        version: 1,
        machineId: `practice-${kind}-${unit}`,
        number,
        name,
        kind: tool,
        unit,
        diameter,
        flute,
        stickOut,
        holderDiameter,
        holderLength,
        ...(tool === 'turning' ? { nose: unit === 'inch' ? 1 / 64 : 0.4 } : {}),
        pitch: null,
        note: '',
      },
    ]
  })
