import { Clipboard, Copy, History, Undo2 } from 'lucide-react'
import { DropdownMenu } from 'radix-ui'
import { type ReactNode, useState } from 'react'
import { copyText, pasteText } from '../ui/clipboard.ts'
import { giveValue } from '../ui/type-into.ts'
import { typedBefore } from './typed-before.ts'
import { letGoOfValue, type PressedValue } from './value-press.ts'

/** What can be done with the value that a finger rests on: copied, pasted over, put back to what was typed, or as the last setup had it. */
export function ValueMenu({ value }: { value: PressedValue }) {
  const { element, field, text, typed } = value
  const [says, setSays] = useState<string>()
  const { here, last } = field && !field.readOnly ? typedBefore(field) : {}
  const box = element.getBoundingClientRect()
  /** Does it, and closes; where it could not be done, says so instead. */
  const attempt = (does: () => Promise<string | undefined>) => (event: Event) => {
    event.preventDefault()
    void does().then((wrong) => (wrong === undefined ? letGoOfValue() : setSays(wrong)))
  }
  const put = (next: string) => field && giveValue(field, next, next.length, next)
  return (
    <DropdownMenu.Root open modal={false} onOpenChange={(stays) => !stays && letGoOfValue()}>
      <DropdownMenu.Trigger asChild>
        <button
          type="button"
          tabIndex={-1}
          aria-hidden
          className="pointer-events-none fixed opacity-0"
          style={{ left: box.left, top: box.top, width: box.width, height: box.height }}
        />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal container={document.querySelector('main')}>
        <DropdownMenu.Content
          data-value-menu
          aria-label={text ? `What can be done with ${text}` : 'What can be done with this field'}
          align="start"
          sideOffset={4}
          collisionPadding={8}
          onCloseAutoFocus={(event) => {
            event.preventDefault()
            field?.focus()
          }}
          className="pointer-events-auto z-80 grid min-w-64 max-w-[min(32rem,calc(100vw-1rem))] border-2 border-ink bg-stock text-lg shadow-lg"
        >
          {text && (
            <Item mark={<Copy aria-hidden size={22} />} onSelect={attempt(() => copyText(text))}>
              Copy <span className="digits">{text}</span>
            </Item>
          )}
          {field && !field.readOnly && (
            <Item
              mark={<Clipboard aria-hidden size={22} />}
              onSelect={attempt(async () => {
                const { text: pasted, says: why } = await pasteText()
                if (pasted === undefined) return why
                put(pasted)
                return undefined
              })}
            >
              Paste
            </Item>
          )}
          {here && (
            <Item mark={<Undo2 aria-hidden size={22} />} onSelect={() => put(here.text)}>
              As it was typed before: <span className="digits">{here.text}</span>
            </Item>
          )}
          {last && (
            <Item mark={<History aria-hidden size={22} />} onSelect={() => put(last.text)}>
              As in {last.title}: <span className="digits">{last.text}</span>
            </Item>
          )}
          {typed && <p className="border-t border-rule px-4 py-2 text-base">Typed: {typed}</p>}
          {says && (
            <p role="alert" className="border-t border-rule px-4 py-2 text-base font-semibold">
              {says}
            </p>
          )}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  )
}

const Item = ({
  mark,
  onSelect,
  children,
}: {
  mark: ReactNode
  onSelect: (event: Event) => void
  children: ReactNode
}) => (
  <DropdownMenu.Item
    onSelect={onSelect}
    className="flex min-h-16 items-center gap-3 px-4 outline-none select-none data-highlighted:bg-ink data-highlighted:text-stock"
  >
    {mark}
    <span>{children}</span>
  </DropdownMenu.Item>
)
