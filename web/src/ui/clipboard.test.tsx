import { afterEach, expect, it, vi } from 'vitest'
import { copyText, pasteText } from './clipboard.ts'

afterEach(() => vi.unstubAllGlobals())

const withClipboard = (clipboard: unknown) =>
  vi.stubGlobal('navigator', Object.create(navigator, { clipboard: { value: clipboard } }))

it('copies by the browser’s clipboard where it is given', async () => {
  const writeText = vi.fn(async () => undefined)
  withClipboard({ writeText })
  expect(await copyText('G54')).toBeUndefined()
  expect(writeText).toHaveBeenCalledWith('G54')
})

it('copies the old way where it is not, leaves nothing behind, and gives the focus back', async () => {
  withClipboard(undefined)
  let copied = ''
  document.execCommand = vi.fn(() => {
    copied = (document.activeElement as HTMLTextAreaElement).value
    return true
  })
  document.body.innerHTML = '<button>here</button>'
  const button = document.querySelector('button')
  button?.focus()
  expect(await copyText('N10 G0\nN20 M30')).toBeUndefined()
  expect(copied).toBe('N10 G0\nN20 M30')
  expect(document.querySelector('textarea')).toBeNull()
  expect(document.activeElement).toBe(button)
  document.execCommand = vi.fn(() => false)
  expect(await copyText('x')).toMatch(/did not let it be copied/)
})

it('pastes what was copied, or says why it cannot and what to do', async () => {
  withClipboard({ readText: async () => ' 1.25 \n' })
  expect(await pasteText()).toEqual({ text: '1.25' })
  withClipboard({ readText: async () => '' })
  expect(await pasteText()).toEqual({ says: 'Nothing was copied.' })
  for (const clipboard of [undefined, { readText: async () => Promise.reject(new Error('denied')) }]) {
    withClipboard(clipboard)
    expect((await pasteText()).says).toMatch(/over https/)
  }
})
