import { type LengthUnit, STEPS, stepped } from '@dogleg/core/quantity'
import { ArrowRight, CornerDownLeft, Delete, Keyboard, X } from 'lucide-react'
import { type ReactNode, useEffect, useRef, useState } from 'react'
import { copyText, pasteText } from '../ui/clipboard.ts'
import { useDecimalComma } from '../ui/decimal-comma.ts'
import { eraseIn, giveValue, typeInto } from '../ui/type-into.ts'
import { keepInView } from './keep-in-view.ts'
import { askForKeyboard, type NumbersField, putKeypadAway, useKeypadField } from './keypad-field.ts'
import { toNext } from './to-next.ts'

/** What a page draws anew for a narrower window is there after so long, in ms. */
const LATE_MS = 300

/** The keypad of the page's own, for the field that has the focus. */
export function Keypad() {
  const field = useKeypadField()
  return field ? <Keys key={field.id} field={field} /> : null
}

const unitOf = ({ dataset }: NumbersField): LengthUnit | undefined =>
  dataset.unit === 'inch' || dataset.unit === 'mm' ? dataset.unit : undefined

function Keys({ field }: { field: NumbersField }) {
  const comma = useDecimalComma()
  const [says, setSays] = useState<string>()
  // What stood there when the field was come to.
  const before = useRef(field.value)
  const unit = unitOf(field)
  const lines = field instanceof HTMLTextAreaElement
  const several = 'several' in field.dataset
  const label = field.labels?.[0]?.textContent ?? field.getAttribute('aria-label') ?? ''
  useEffect(() => {
    before.current = field.value
    // What follows from the number comes a moment after it.
    const look = () => requestAnimationFrame(() => keepInView(field))
    look()
    field.addEventListener('input', look)
    const late = setTimeout(look, LATE_MS)
    return () => {
      field.removeEventListener('input', look)
      clearTimeout(late)
    }
  }, [field])
  const type = (text: string) => {
    setSays(undefined)
    typeInto(field, text)
  }
  const step = (by: string) => {
    if (!unit) return
    // Of several readings the last one is changed.
    const from = field.value.lastIndexOf(';') + 1
    const next = stepped(field.value.slice(from), unit, by)
    if (next === undefined) setSays('This is no length yet: nothing can be added.')
    else all(`${field.value.slice(0, from)}${from > 0 ? ' ' : ''}${next}`)
  }
  const all = (text: string) => giveValue(field, text, text.length, text)
  const [coarse, fine] = unit ? STEPS[unit] : []
  return (
    <aside
      data-keypad
      aria-label={`Keys for ${label}`}
      // The field keeps the focus: the keys are for fingers, and a keyboard needs none of them.
      onPointerDown={(event) => event.preventDefault()}
      className="keypad pointer-events-auto fixed z-70 border-ink bg-stock-shade print:hidden"
    >
      <p className="keypad-label truncate text-base font-semibold">{label}</p>
      <div className="keypad-digits">
        {['7', '8', '9'].map((digit) => (
          <Key key={digit} onPress={() => type(digit)} says={digit} />
        ))}
        <Key onPress={() => eraseIn(field)} says={<Delete aria-hidden size={26} />} label="Take back" />
        {['4', '5', '6'].map((digit) => (
          <Key key={digit} onPress={() => type(digit)} says={digit} />
        ))}
        <Key onPress={() => type('-')} says="−" label="Minus" />
        {['1', '2', '3'].map((digit) => (
          <Key key={digit} onPress={() => type(digit)} says={digit} />
        ))}
        <Key onPress={() => type('/')} says="/" label="Slash" />
        <Key onPress={() => type('0')} says="0" />
        <Key onPress={() => type('.')} says={comma ? ',' : '.'} label={comma ? 'Comma' : 'Point'} />
        {lines ? (
          <>
            <Key onPress={() => type(' ')} says="space" small />
            <Key
              onPress={() => type('\n')}
              says={<CornerDownLeft aria-hidden size={26} />}
              label="Next line"
            />
          </>
        ) : (
          <>
            <Key onPress={() => type('mm')} says="mm" small off={!unit} />
            <Key onPress={() => type('in')} says="in" small off={!unit} />
          </>
        )}
      </div>
      <div className="keypad-more">
        {coarse !== undefined && fine !== undefined && !lines && (
          <>
            <Key onPress={() => step(coarse)} says={`+ ${coarse}`} small />
            <Key onPress={() => step(`-${coarse}`)} says={`− ${coarse}`} small />
            <Key onPress={() => step(fine)} says={`+ ${fine}`} small />
            <Key onPress={() => step(`-${fine}`)} says={`− ${fine}`} small />
          </>
        )}
        <Key onPress={() => void copyText(field.value).then(setSays)} says="Copy" small />
        <Key
          onPress={() =>
            void pasteText().then(({ text, says: why }) => (text === undefined ? setSays(why) : all(text)))
          }
          says="Paste"
          small
        />
        <Key onPress={() => all(before.current)} says="As before" small />
        <Key
          onPress={askForKeyboard}
          says={<Keyboard aria-hidden size={24} />}
          label="The tablet’s own keyboard"
        />
        <Key onPress={putKeypadAway} says={<X aria-hidden size={24} />} label="Put the keys away" />
        {several && (
          // Behind what stands there, though all of it is marked.
          <Key
            onPress={() => field.value.trim() && all(`${field.value.trim()}; `)}
            says=";"
            label="Another reading"
          />
        )}
        <button
          type="button"
          tabIndex={-1}
          onClick={() => toNext(field)}
          className={`keypad-next ${several ? 'beside' : ''} inline-flex min-h-16 items-center justify-center gap-2 rounded-sm bg-ink text-xl font-semibold text-stock select-none`}
        >
          Next <ArrowRight aria-hidden size={24} />
        </button>
      </div>
      <p role="status" className="keypad-says text-sm font-semibold">
        {says}
      </p>
    </aside>
  )
}

interface KeyProps {
  says: ReactNode
  label?: string
  small?: boolean
  off?: boolean
  onPress: () => void
}

const Key = ({ says, label, small, off, onPress }: KeyProps) => (
  <button
    type="button"
    tabIndex={-1}
    aria-label={label}
    disabled={off}
    onClick={onPress}
    className={`inline-flex min-h-16 min-w-0 items-center justify-center rounded-sm border border-ink-soft bg-stock px-0.5 font-semibold select-none active:bg-ink active:text-stock disabled:invisible ${small ? 'digits text-[16px] leading-5' : 'text-3xl'}`}
  >
    {says}
  </button>
)
