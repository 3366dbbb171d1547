interface ShareSliderProps {
  label: string
  /** 0 to 1. */
  value: number
  onChange: (share: number) => void
  /** Said at its two ends. */
  ends?: readonly [string, string]
}

/** A slider between two ends, as wide as its picture. */
export function ShareSlider({ label, value, onChange, ends }: ShareSliderProps) {
  return (
    <label className="flex min-h-11 items-center gap-3 text-sm">
      <span className={ends ? 'sr-only' : ''}>{label}</span>
      {ends && (
        <span aria-hidden className="shrink-0">
          {ends[0]}
        </span>
      )}
      <input
        type="range"
        min={0}
        max={1}
        step={0.01}
        value={value}
        onChange={({ target }) => onChange(Number(target.value))}
        className="h-11 min-w-0 flex-1 accent-ink"
      />
      {ends && (
        <span aria-hidden className="shrink-0">
          {ends[1]}
        </span>
      )}
    </label>
  )
}
