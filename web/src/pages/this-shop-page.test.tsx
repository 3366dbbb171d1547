import { act, fireEvent, render, screen, waitFor } from '@testing-library/react'
import { MemoryRouter } from 'react-router'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { BackupAge } from '../app/backup-age.tsx'
import { fakeServer, Round } from '../testing/shop.tsx'
import { ThisShopPage } from './this-shop-page.tsx'

afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

const made = (n: number, why = 'night') => ({
  name: `shop-night-${n}.sqlite`,
  why,
  at: `2026-11-${String(10 + n).padStart(2, '0')}T02:00:00.000Z`,
  bytes: 24_000_000,
})
const shop = (backups: object = {}, more: object = {}) => ({
  logbook: '01M8JSHE3K9HABF3T635A5XCKS',
  file: '/srv/shop.sqlite',
  entries: 28_237,
  bytes: 24_000_000,
  free: 80e9,
  warnings: [],
  backups: { folder: '/srv/backups', days: 14, months: 12, made: [], ...backups },
  ...more,
})
const show = () =>
  render(
    <Round>
      <MemoryRouter>
        <ThisShopPage />
        <BackupAge />
      </MemoryRouter>
    </Round>,
  )

describe('the page of this shop', () => {
  it('says that there is no backup, begins one, shows that it is made, and what came of it', async () => {
    vi.useFakeTimers({ shouldAdvanceTime: true })
    let now = shop()
    const asked = fakeServer({
      'GET /api/shop': () => now,
      'POST /api/backups': () => {
        now = shop({ running: 'asked' })
        return now
      },
    })
    show()
    await screen.findByText('There is no backup yet.')
    expect(screen.getByRole('link', { name: 'No backup yet' })).toBeDefined()
    fireEvent.click(screen.getByRole('button', { name: 'Make a backup now' }))
    await screen.findByText('A backup is being made…')
    expect(screen.getByRole('button', { name: 'Stop it' })).toBeDefined()
    now = shop({ made: [made(1, 'asked')] })
    await act(() => vi.advanceTimersByTimeAsync(1100))
    await waitFor(() => expect(screen.getByRole('status').textContent).toMatch(/^Last backup .*11 Nov/))
    expect(screen.getByText(/24 MB, asked for\. It was opened/)).toBeDefined()
    expect(screen.getByText(/npm run restore \/srv\/backups\/shop-night-1\.sqlite/)).toBeDefined()
    expect(asked.filter((each) => each.startsWith('POST'))).toEqual(['POST /api/backups'])
  })

  it('stops one', async () => {
    const asked = fakeServer({
      'GET /api/shop': () => shop({ running: 'night' }),
      'POST /api/backups/stop': () => shop(),
    })
    show()
    fireEvent.click(await screen.findByRole('button', { name: 'Stop it' }))
    await screen.findByText('There is no backup yet.')
    expect(asked).toContain('POST /api/backups/stop')
  })

  it('says what somebody must do something about, why the last try failed, and why one cannot be begun', async () => {
    const says = 'There is no room for a backup: it needs 300 MB, and the disk has 12 MB left.'
    fakeServer({
      'GET /api/shop': () =>
        shop(
          {
            made: Array.from({ length: 12 }, (_, n) => made(12 - n)),
            failed: { at: made(9).at, says: 'It was full.' },
          },
          { alarm: 'The logbook file is damaged.', warnings: ['The disk of the logbook is nearly full.'] },
        ),
      'POST /api/backups': () => {
        throw new TypeError('Failed to fetch')
      },
    })
    show()
    await screen.findByText('The logbook file is damaged.')
    expect(screen.getAllByRole('alert').map(({ textContent }) => textContent)).toEqual([
      'The logbook file is damaged.',
      'The disk of the logbook is nearly full.',
    ])
    expect(screen.getByText(/It was full\./)).toBeDefined()
    expect(screen.getByText('and 4 older')).toBeDefined()
    fireEvent.click(screen.getByRole('button', { name: 'Make a backup now' }))
    await screen.findByText(/The server does not answer/)
    expect(screen.queryByText(says)).toBeNull()
  })

  it('says that none is made by itself, where that was set', async () => {
    fakeServer({ 'GET /api/shop': () => shop({ days: 0 }) })
    show()
    await screen.findByText(/None is made by itself: DOGLEG_BACKUP_DAYS is 0\./)
  })
})
