import type { ReactNode } from 'react'
import { useHeld } from './use-clicks.ts'

/** A group of keys with its name in front. */
export const Group = ({ label, children }: { label: string; children: ReactNode }) => (
  // biome-ignore lint/a11y/useSemanticElements: a fieldset cannot lie in a row with its legend
  <div role="group" aria-label={label} className="flex items-center gap-1.5">
    <span className="w-20 shrink-0 text-sm leading-4 text-ink-soft">{label}</span>
    {children}
  </div>
)

interface KeyProps {
  children: ReactNode
  onPress: () => void
  pressed?: boolean
  name?: string
  disabled?: boolean
}

const keyLook = (pressed: boolean) =>
  `flex min-h-11 min-w-0 flex-1 items-center justify-center gap-1 rounded-sm border px-1 leading-4 font-semibold disabled:text-ink-soft ${pressed ? 'border-ink bg-ink text-stock' : 'border-ink-soft hover:bg-stock-shade'}`

/** A key of the machine's panel. */
export const Key = ({ children, onPress, pressed, name, disabled }: KeyProps) => (
  <button
    type="button"
    onClick={onPress}
    aria-label={name}
    aria-pressed={pressed}
    disabled={disabled}
    className={keyLook(pressed === true)}
  >
    {children}
  </button>
)

/** The same, going on while it is held down. */
export function HeldKey({ onPress, ...rest }: Omit<KeyProps, 'pressed'>) {
  const held = useHeld(onPress)
  const { children, name, disabled } = rest
  return (
    <button
      type="button"
      data-held
      {...held}
      aria-label={name}
      disabled={disabled}
      className={keyLook(false)}
    >
      {children}
    </button>
  )
}
