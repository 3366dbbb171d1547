import { formatAngle } from '../angle/index.ts'
import { methodName } from '../pickup/index.ts'
import { formatLength } from '../quantity/index.ts'
import { FLAT_METHODS } from '../rotary/index.ts'
import { type Logged, offsetTable, type Reference, type Setup, type StockFact } from '../setup/index.ts'
import { type SheetLine, type Stated, stated } from './stated.ts'

/** A work offset on the sheet; on a lathe the geometry of a tool, or the work shift. */
export interface SheetOffset {
  name: string
  axes: (Stated & { axis: string; value: string; doubt: string; method: string })[]
  angle?: SheetLine
  /** What must come off the block that it was taken on. */
  stock?: SheetLine
  check?: SheetLine
}

/** What must come off each face of a block, as far as it is known. */
function comesOff({ X, Y, Z, unit }: StockFact): string {
  const faces = [
    ['left', X.low],
    ['right', X.high],
    ['front', Y.low],
    ['back', Y.high],
    ['top', Z.top],
    ['bottom', Z.bottom],
  ] as const
  return faces
    .flatMap(([face, off]) => (off === undefined ? [] : [`${face} ${formatLength(off, unit)}`]))
    .join(', ')
}

/** The offsets that a setup took, with what else it knows of each. */
export function offsetsOf(
  setup: Setup,
  machineEntries: readonly Logged[],
  reference: Reference,
): SheetOffset[] {
  const { unit, shift } = setup
  const work: SheetOffset[] = shift
    ? [
        {
          name: 'shift',
          axes: [
            {
              axis: 'Z',
              value: formatLength(shift.shift.value, unit),
              doubt: formatLength(shift.shift.doubt.value, unit),
              method: `work shift, by ${shift.entry.offset}`,
              ...stated(shift.entry, shift.freshness),
            },
          ],
        },
      ]
    : []
  const own = new Map(setup.offsets.map((offset) => [offset.name, offset]))
  const taken = offsetTable(setup, machineEntries, reference)
    .filter(({ name }) => own.has(name))
    .map(({ name, axes, rotary }) => {
      const { angle, stock, check } = own.get(name) ?? {}
      return {
        name,
        axes: [
          ...Object.entries(axes).map(([axis, { value, doubt, fact, other }]) => ({
            axis,
            value: formatLength(value, unit),
            doubt: formatLength(doubt, unit),
            method: `${methodName(fact.entry.reading.method)}${other ? `, in ${other.title}` : ''}`,
            ...stated(fact.entry, fact.freshness),
          })),
          ...(rotary
            ? [
                {
                  axis: rotary.fact.axis,
                  value: formatAngle(rotary.value),
                  doubt: formatAngle(rotary.doubt),
                  method: `${FLAT_METHODS[rotary.fact.entry.reading.method]}${rotary.other ? `, in ${rotary.other.title}` : ''}`,
                  ...stated(rotary.fact.entry, rotary.fact.freshness),
                },
              ]
            : []),
        ],
        ...(angle
          ? {
              angle: {
                what: 'Angle',
                says: `${formatAngle(angle.angle.value)} deg`,
                more: `within ${formatAngle(angle.angle.doubt.value)}`,
                ...stated(angle.entry, angle.freshness),
              },
            }
          : {}),
        ...(stock
          ? {
              stock: {
                what: 'Block',
                says: `comes off: ${comesOff(stock)}`,
                more: '',
                ...stated(stock.entry, stock.freshness),
              },
            }
          : {}),
        ...(check
          ? {
              check: {
                what: 'Pointed tool',
                says: check.entry.result === 'agrees' ? 'stands over part zero' : 'stands off',
                more: check.entry.note,
                ...stated(check.entry, check.freshness),
              },
            }
          : {}),
      }
    })
  return [...work, ...taken]
}
