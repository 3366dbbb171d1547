import { useState } from 'react'
import type { z } from 'zod'
import { storage } from './storage.ts'

/** What is typed into a form, kept on the tablet under a key until it is recorded, so that a reload loses nothing. */
export function useKept<T>(
  name: string,
  schema: z.ZodType<T>,
  start: () => T,
): [value: T, change: (next: T) => void, clear: (next?: T) => void] {
  const key = `dogleg.draft.${name}`
  const [value, setValue] = useState<T>(() => read(key, schema) ?? start())
  const change = (next: T) => {
    // Where there is no room on the tablet a reload must not bring back an earlier state of it.
    storage.replace(key, JSON.stringify(next))
    setValue(next)
  }
  const clear = (next = start()) => {
    storage.remove(key)
    setValue(next)
  }
  return [value, change, clear]
}

function read<T>(key: string, schema: z.ZodType<T>): T | undefined {
  try {
    return schema.safeParse(JSON.parse(storage.get(key) ?? 'null')).data
  } catch {
    return undefined
  }
}
