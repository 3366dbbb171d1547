import { Dialog as Radix } from 'radix-ui'
import type { ReactNode } from 'react'

/** A screen over the whole page that only what is asked for on it takes away; the page under it stays as it is. */
export const OverAll = ({ title, says, children }: { title: string; says: string; children: ReactNode }) => (
  <Radix.Root open>
    <Radix.Portal>
      <Radix.Content
        onEscapeKeyDown={(event) => event.preventDefault()}
        onInteractOutside={(event) => event.preventDefault()}
        className="fixed inset-0 z-60 overflow-y-auto bg-stock"
      >
        <div className="mx-auto flex min-h-full w-full max-w-4xl flex-col justify-center px-6 py-6">
          <p className="flex items-center gap-2 text-xl font-semibold">
            <img src="/icon.svg" alt="" width={26} height={26} /> Dogleg
          </p>
          <Radix.Title className="mt-2 text-4xl font-semibold">{title}</Radix.Title>
          <Radix.Description className="mt-1 mb-5 text-lg text-ink-soft">{says}</Radix.Description>
          {children}
        </div>
      </Radix.Content>
    </Radix.Portal>
  </Radix.Root>
)
