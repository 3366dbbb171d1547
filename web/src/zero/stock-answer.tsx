import { FACE_NAMES, type Stock } from '@dogleg/core/pickup'
import { zeroAfter } from '@dogleg/core/prepare'
import { formatLength, unitSymbol } from '@dogleg/core/quantity'
import type { OffsetState } from '@dogleg/core/setup'

/** What was measured, and what must come off each face. */
export function ComesOff({ stock }: { stock: Stock }) {
  const { X, Y, Z, unit } = stock
  const length = (value: number | undefined) =>
    value === undefined ? (
      <span className="text-base text-ink-soft">not known</span>
    ) : (
      formatLength(value, unit)
    )
  const rows = [
    ['X', X.measured?.value, FACE_NAMES.X, X.low, X.high],
    ['Y', Y.measured?.value, FACE_NAMES.Y, Y.low, Y.high],
    ['Z', Z.measured, ['top', 'bottom'], Z.top, Z.bottom],
  ] as const
  return (
    <>
      <h2 className="font-semibold">What must come off, {unitSymbol(unit)}</h2>
      <table className="w-full">
        <caption className="sr-only">The block as it was measured, and what must come off its faces</caption>
        <thead>
          <tr className="border-b border-ink-soft text-left text-sm">
            <th scope="col">Along</th>
            <th scope="col" className="text-right">
              measured
            </th>
            <th scope="col" className="text-right" colSpan={2}>
              off its faces
            </th>
          </tr>
        </thead>
        <tbody>
          {rows.map(([axis, measured, faces, low, high]) => (
            <tr key={axis} className="border-b border-rule align-bottom">
              <th scope="row" className="text-left text-xl">
                {axis}
              </th>
              <td className="digits text-right text-xl">{length(measured)}</td>
              {[low, high].map((off, index) => (
                <td key={faces[index]} className="text-right">
                  <span className="block text-sm leading-4 text-ink-soft">{faces[index]}</span>
                  <span className="digits text-2xl leading-7">{length(off)}</span>
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </>
  )
}

/** Where zero stands and where it goes, an axis each. */
export function ZeroStands({ stock, offset }: { stock: Stock; offset: OffsetState }) {
  const { unit } = stock
  return (
    <ul aria-label={`Zero of ${offset.name}`}>
      {(['X', 'Y', 'Z'] as const).map((axis) => {
        const fact = offset.axes[axis]
        const { wanted, now } = stock[axis]
        const after = fact && zeroAfter(stock, fact)
        const stale = fact?.freshness.state === 'stale'
        return (
          <li key={axis} className="flex items-baseline justify-between gap-2 border-b border-rule">
            <span className="font-semibold">{axis}</span>
            {fact ? (
              <span className="text-right">
                <span className="digits text-lg">{formatLength(fact.value, unit)}</span>
                {stale ? (
                  <span className="ml-2 text-sm">stale: take it again</span>
                ) : wanted === undefined ? (
                  <span className="ml-2 text-sm text-ink-soft">
                    {now === undefined
                      ? 'stays: what was touched is not known'
                      : 'say what comes off that face'}
                  </span>
                ) : after === undefined ? (
                  <span className="ml-2 text-sm text-ink-soft">stays</span>
                ) : (
                  <>
                    <span className="mx-2">to</span>
                    <span className="digits text-lg font-semibold">{formatLength(after, unit)}</span>
                  </>
                )}
              </span>
            ) : (
              <span className="text-ink-soft">not taken</span>
            )}
          </li>
        )
      })}
    </ul>
  )
}
