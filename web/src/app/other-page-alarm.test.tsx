import { act, fireEvent, render, screen } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { api } from '../log/api.ts'
import { storage } from '../log/storage.ts'
import { useUnsaved } from '../log/unsaved.ts'
import { fillStorage } from '../testing/full-storage.ts'
import { OtherPageAlarm } from './other-page-alarm.tsx'

const OWN = '/assets/index-own.js'

/** Has a question answered by a server whose page begins with a script. */
async function answeredBy(script: string | undefined) {
  vi.stubGlobal('fetch', async () =>
    Response.json({ stamp: 1 }, { headers: script === undefined ? {} : { 'dogleg-page': script } }),
  )
  await act(async () => {
    await api.referenceStamp()
  })
}

beforeEach(() => {
  // The scripts that stand for a page's are not there to be run.
  const { happyDOM } = window as typeof window & { happyDOM?: { settings: Record<string, unknown> } }
  if (happyDOM) happyDOM.settings.handleDisabledFileLoadingAsSuccess = true
  document.head.innerHTML = `<script type="module" src="${OWN}"></script>`
})
afterEach(async () => {
  await answeredBy(OWN)
  vi.unstubAllGlobals()
  vi.restoreAllMocks()
  document.head.innerHTML = ''
})

it('says that the server has another page by now, and loads it when it is told to', async () => {
  render(<OtherPageAlarm />)
  await answeredBy(OWN)
  expect(screen.queryByRole('alert')).toBeNull()
  await answeredBy('/assets/index-of-today.js')
  const alarm = await screen.findByRole('alert', { name: 'This page is of another version' })
  expect(alarm.textContent).toContain('Load the page again before you rely on what it shows')
  expect(alarm.textContent).toContain('What is recorded is kept')
  const reload = vi.spyOn(window.location, 'reload').mockImplementation(() => undefined)
  fireEvent.click(screen.getByRole('button', { name: 'Load it again' }))
  await vi.waitFor(() => expect(reload).toHaveBeenCalledTimes(1))
  // Put back as it was, it is the page of the server again.
  await answeredBy(OWN)
  expect(screen.queryByRole('alert')).toBeNull()
})

it('does not promise that what is typed is kept where the storage is full', async () => {
  fillStorage()
  render(<OtherPageAlarm />)
  act(() => storage.replace('dogleg.draft.try', '"typed"'))
  await answeredBy('/assets/index-of-today.js')
  expect((await screen.findByRole('alert')).textContent).toContain('first write down what is typed')
  act(() => storage.remove('dogleg.draft.try'))
})

it('is silent where nothing says which page the server has, and where the page runs from its sources', async () => {
  render(<OtherPageAlarm />)
  await answeredBy(undefined)
  document.head.innerHTML = '<script type="module" src="/src/main.tsx"></script>'
  await answeredBy('/assets/index-of-today.js')
  expect(screen.queryByRole('alert')).toBeNull()
})

function Typed({ is }: { is: boolean }) {
  useUnsaved(is)
  return null
}

describe('a page that nobody touches', () => {
  const minutes = (n: number) => act(() => vi.advanceTimersByTimeAsync(n * 60_000))
  afterEach(() => vi.useRealTimers())

  it('is loaded anew by itself once nothing is typed on it, and says so afterwards', async () => {
    vi.useFakeTimers()
    const reload = vi.spyOn(window.location, 'reload').mockImplementation(() => undefined)
    const { rerender, unmount } = render(<OtherPageAlarm />)
    await minutes(5)
    expect(reload).not.toHaveBeenCalled()
    await answeredBy('/assets/index-of-today.js')
    rerender(
      <>
        <OtherPageAlarm />
        <Typed is />
      </>,
    )
    await minutes(10)
    expect(reload).not.toHaveBeenCalled()
    rerender(
      <>
        <OtherPageAlarm />
        <Typed is={false} />
      </>,
    )
    fireEvent.keyDown(window, { key: 'a' })
    await minutes(1)
    expect(reload).not.toHaveBeenCalled()
    await minutes(2)
    expect(reload).toHaveBeenCalled()
    unmount()
    // The page that comes then.
    await answeredBy(OWN)
    render(<OtherPageAlarm />)
    expect(screen.getByRole('status').textContent).toContain('loaded anew while nobody touched it')
    await minutes(2)
    expect(screen.queryByRole('status')).toBeNull()
  })
})
