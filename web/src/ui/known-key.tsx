import { Button } from './button.tsx'

interface KnownKeyProps {
  /** What is taken, in words: 'Take the measured length of T7'. */
  label: string
  text: string
  onTake: (text: string) => void
}

/** What is known elsewhere, a press away from the field that asks for it: the `action` of an entry. */
export function KnownKey({ label, text, onTake }: KnownKeyProps) {
  return (
    <Button
      look="quiet"
      className="h-full shrink-0 rounded-none border-l border-rule px-2"
      aria-label={`${label}, ${text}`}
      onClick={() => onTake(text)}
    >
      take {text}
    </Button>
  )
}
