import { vi } from 'vitest'

/** Lets the tablet's storage take nothing more; what it has stays. `vi.unstubAllGlobals` makes room again. */
export function fillStorage() {
  const real = localStorage
  vi.stubGlobal(
    'localStorage',
    new Proxy(real, {
      get: (of, name) => {
        if (name === 'setItem')
          return () => {
            throw new DOMException('full', 'QuotaExceededError')
          }
        const value: unknown = Reflect.get(of, name, of)
        return typeof value === 'function' ? value.bind(of) : value
      },
    }),
  )
}
