import { X } from 'lucide-react'
import { Dialog as Radix } from 'radix-ui'
import type { ReactNode } from 'react'

interface DialogProps {
  open: boolean
  onOpenChange: (open: boolean) => void
  title: string
  /** One or two sentences under the title. */
  says: string
  /** Room for two columns. */
  wide?: boolean
  children: ReactNode
}

/** A dialog over the page. The veil is our own: Radix's overlay writes an inline style that the page's policy forbids. */
export function Dialog({ open, onOpenChange, title, says, wide, children }: DialogProps) {
  return (
    <Radix.Root open={open} onOpenChange={onOpenChange}>
      <Radix.Portal>
        <div className="fixed inset-0 z-40 bg-ink/50" aria-hidden />
        <Radix.Content
          // The keypad is no part of the dialog, and types into it.
          onInteractOutside={(event) => {
            if (event.target instanceof Element && event.target.closest('[data-keypad]'))
              event.preventDefault()
          }}
          className={`dialog-box fixed top-1/2 left-1/2 z-50 max-h-[92dvh] ${wide ? 'w-[min(60rem,94vw)]' : 'w-[min(36rem,94vw)]'} -translate-x-1/2 -translate-y-1/2 overflow-y-auto rounded-sm border border-ink bg-stock p-6`}
        >
          <div className="flex items-start justify-between gap-4">
            <Radix.Title className="text-2xl font-semibold">{title}</Radix.Title>
            <Radix.Close
              className="-mt-2 -mr-2 inline-flex size-11 items-center justify-center rounded-sm hover:bg-stock-shade"
              aria-label="Close"
            >
              <X aria-hidden size={22} />
            </Radix.Close>
          </div>
          <Radix.Description className="mt-1 mb-4 text-ink-soft">{says}</Radix.Description>
          {children}
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  )
}
