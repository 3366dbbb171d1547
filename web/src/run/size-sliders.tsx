import { type Characteristic, sliderOf } from '@dogleg/core/gauge'
import { formatValue } from './format-value.ts'

interface SizeSlidersProps {
  characteristics: readonly Characteristic[]
  sizes: ReadonlyMap<string, number>
  /** Keys that are out of tolerance. */
  out: readonly string[]
  onChange: (key: string, value: number) => void
}

/** The part under the probe: each of its sizes, to be dragged in and out of tolerance. */
export function SizeSliders({ characteristics, sizes, out, onChange }: SizeSlidersProps) {
  return (
    <ul className="space-y-1">
      {characteristics.map((of) => {
        const { least, greatest, step } = sliderOf(of)
        const value = sizes.get(of.key) ?? of.middle
        return (
          <li key={of.key}>
            <div>
              <span className="flex items-baseline justify-between gap-2">
                <span className="font-semibold">{of.key}</span>
                <span className="digits text-2xl">{formatValue(value, of.unit)}</span>
              </span>
              <input
                type="range"
                aria-label={of.key}
                min={least}
                max={greatest}
                step={step}
                value={value}
                onChange={({ target }) => onChange(of.key, Number(target.value))}
                aria-valuetext={`${formatValue(value, of.unit)}, ${out.includes(of.key) ? 'out of tolerance' : 'in tolerance'}`}
                className="h-11 w-full accent-ink"
              />
              <span className="-mt-2 flex justify-between text-sm text-ink-soft">
                <span className="digits">{formatValue(of.lower, of.unit)}</span>
                <span className={out.includes(of.key) ? 'font-semibold text-ink' : ''}>
                  {out.includes(of.key) ? 'out of tolerance' : 'in tolerance'}
                </span>
                <span className="digits">{formatValue(of.upper, of.unit)}</span>
              </span>
            </div>
          </li>
        )
      })}
    </ul>
  )
}
