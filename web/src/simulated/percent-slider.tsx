import { useEffect, useRef, useState } from 'react'

interface PercentSliderProps {
  label: string
  value: number
  least: number
  greatest: number
  /** Places that are marked. */
  marks: readonly number[]
  onChange: (percent: number) => void
}

/** It is told to the machine once the hand rests. */
const RESTS_MS = 120

/** A slider in per cent with its marks under it; arrow keys move it by one, Page Up and Page Down from mark to mark. */
export function PercentSlider({ label, value, least, greatest, marks, onChange }: PercentSliderProps) {
  const [held, setHeld] = useState<number>()
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined)
  const shown = held ?? value
  useEffect(() => () => clearTimeout(timer.current), [])
  const move = (to: number) => {
    setHeld(to)
    clearTimeout(timer.current)
    timer.current = setTimeout(() => {
      onChange(to)
      setHeld(undefined)
    }, RESTS_MS)
  }
  const at = (mark: number) => `${(100 * (mark - least)) / (greatest - least)}%`
  const sorted = [...marks].sort((a, b) => a - b)
  return (
    <div className="grid grid-cols-[5rem_1fr_auto] items-start gap-x-3">
      <span className="pt-2 font-semibold" aria-hidden>
        {label}
      </span>
      <div className="px-2">
        <input
          type="range"
          aria-label={`${label}, per cent`}
          min={least}
          max={greatest}
          step={1}
          value={shown}
          onChange={({ target }) => move(Number(target.value))}
          onKeyDown={(event) => {
            const next =
              event.key === 'PageUp'
                ? sorted.find((mark) => mark > shown)
                : event.key === 'PageDown'
                  ? sorted.findLast((mark) => mark < shown)
                  : undefined
            if (next === undefined) return
            event.preventDefault()
            move(next)
          }}
          className="block h-9 w-full accent-ink"
        />
        <div className="relative h-5 text-sm text-ink-soft" aria-hidden>
          {sorted.map((mark) => (
            <span
              key={mark}
              style={{ left: at(mark) }}
              className="digits absolute -translate-x-1/2 border-t border-ink-soft px-0.5 leading-5"
            >
              {mark}
            </span>
          ))}
        </div>
      </div>
      <output className="digits min-w-20 pt-1 text-right text-2xl whitespace-nowrap">{shown} %</output>
    </div>
  )
}
