import { cleanup } from '@testing-library/react'
import { afterEach } from 'vitest'
import { noteSession } from '../log/session.ts'
import { storage } from '../log/storage.ts'

afterEach(() => {
  cleanup()
  noteSession({ signs: false })
  localStorage.clear()
  // What the page held for a storage that a test had filled.
  for (const key of storage.keys('')) storage.remove(key)
})
