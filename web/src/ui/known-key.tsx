import { formatLength, type LengthUnit } from '@dogleg/core/quantity'
import { Button } from './button.tsx'

interface KnownKeyProps {
  /** What is taken, in words: 'Take the measured length of T7'. */
  label: string
  text: string
  onTake: (text: string) => void
}

/** What is known elsewhere, a press away from the empty field that asks for it: the `action` of an entry. */
export function KnownKey({ label, text, onTake }: KnownKeyProps) {
  return (
    <Button
      look="quiet"
      className="h-full shrink-0 rounded-none border-l border-rule px-1.5!"
      aria-label={`${label}, ${text}`}
      onClick={() => onTake(text)}
    >
      take {text}
    </Button>
  )
}

interface TakeKnownProps extends Omit<KnownKeyProps, 'text'> {
  /** In `unit`; undefined where nobody knows it. */
  length: number | undefined
  unit: LengthUnit
  /** What stands in the field. */
  value: string
}

/** The `action` of a field for a length that may be known elsewhere: none once something stands there. */
export const takeKnown = ({ length, unit, value, ...rest }: TakeKnownProps) =>
  length !== undefined && value.trim() === ''
    ? { action: <KnownKey text={formatLength(length, unit)} {...rest} /> }
    : {}
