import { demoReference } from '@dogleg/core/demo'
import { prove } from '@dogleg/core/prove'
import type { EntryOf } from '@dogleg/core/setup'
import { act, fireEvent, render, screen } from '@testing-library/react'
import { MemoryRouter } from 'react-router'
import { expect, it, vi } from 'vitest'
import { SETTLE_MS } from '../log/settled.ts'
import { FindingsPanel } from './findings-panel.tsx'

const [machine] = demoReference.machines
const profile = demoReference.profiles.find(({ id }) => id === machine?.profileId)
if (!machine || !profile) throw new Error('the demo has a machine')

const findingsOf = (text: string, mostWork?: number) =>
  prove({
    text,
    profile,
    machine,
    unit: 'inch',
    frame: 'G54',
    offsets: [],
    lengths: [],
    tools: [],
    layout: { unit: 'inch', bodies: [] },
    ...(mostWork === undefined ? {} : { mostWork }),
  }).findings

const LOOP = 'G20 G90 G54\n#1=0\nWHILE[#1LT3000]DO1\n#1=#1+1\nX[#1/1000]\nEND1\nM30'

it('a program that was read to the limit of work says so, and is read ten times as far on request', () => {
  const onFurther = vi.fn()
  const panel = (findings: ReturnType<typeof findingsOf>) => (
    <FindingsPanel
      findings={findings}
      chosen={undefined}
      onChoose={() => {}}
      onMend={undefined}
      onFurther={onFurther}
      standing={() => undefined}
      onLetStand={undefined}
      profileId="compact"
      coverage={undefined}
    />
  )
  const { rerender } = render(panel(findingsOf(LOOP, 100_000)))
  expect(screen.getByText(/more work than was allowed .* What comes after it was not read/)).toBeTruthy()
  fireEvent.click(screen.getByRole('button', { name: 'Read ten times as far' }))
  expect(onFurther).toHaveBeenCalledOnce()
  rerender(panel(findingsOf(LOOP, 1_000_000)))
  expect(screen.queryByRole('button', { name: 'Read ten times as far' })).toBeNull()
})

it('a finding is let stand by a person, once it is open and was on screen a while; a stop never', () => {
  vi.useFakeTimers()
  const findings = findingsOf('G20 G90 G17 G54\nT7 M6\nS3000 M3\nG43 H7 Z1.\nG1 X1. F9.\nM30')
  const look = findings.find(({ severity }) => severity === 'look')
  const stop = findings.find(({ severity }) => severity === 'stop')
  if (!look || !stop) throw new Error('both are said of it')
  const onLetStand = vi.fn()
  const by = { by: 'RT', at: '2026-11-24T09:00:00.000Z' } as EntryOf<'let-stand'>
  const panel = (chosen: typeof look | undefined, stands = false) => (
    <FindingsPanel
      findings={findings}
      chosen={chosen}
      onChoose={() => {}}
      onMend={undefined}
      onFurther={() => {}}
      standing={(finding) => (stands && finding === look ? by : undefined)}
      onLetStand={onLetStand}
      profileId="compact"
      coverage={undefined}
    />
  )
  const key = () => screen.queryByRole('button', { name: 'I looked, let it stand' })
  const { rerender } = render(panel(undefined))
  // Nothing is looked at that nobody opened.
  expect(key()).toBeNull()
  rerender(panel(stop))
  expect(key()).toBeNull()
  rerender(panel(look))
  fireEvent.click(key() as HTMLElement)
  expect(onLetStand).not.toHaveBeenCalled()
  act(() => vi.advanceTimersByTime(SETTLE_MS + 1))
  fireEvent.click(key() as HTMLElement)
  expect(onLetStand).toHaveBeenCalledWith(look)
  rerender(panel(look, true))
  expect(key()).toBeNull()
  expect(screen.getByText(/let stand by RT/)).toBeTruthy()
  vi.useRealTimers()
})

const shown = (text: string, coverage?: Parameters<typeof FindingsPanel>[0]['coverage']) =>
  render(
    <MemoryRouter>
      <FindingsPanel
        findings={findingsOf(text)}
        chosen={undefined}
        onChoose={() => {}}
        onMend={undefined}
        onFurther={() => {}}
        standing={() => undefined}
        onLetStand={undefined}
        profileId="compact"
        coverage={coverage}
      />
    </MemoryRouter>,
  )

it('a code that is not known leads to where somebody can say what it is; a variable of the control does not', () => {
  shown('G20 G90 G54\nM777\nG0 X#3011\nM30')
  const [link, ...others] = screen.getAllByRole('link')
  expect(link?.textContent?.trim()).toBe('Say what M777 is')
  expect(link?.getAttribute('href')).toBe('/profiles/compact')
  expect(others).toEqual([])
  expect(screen.getByText(/What stands in #3011 is not known/)).toBeTruthy()
})

it('says how the program was read: exactly, or what of it on whose word', () => {
  shown('G20 G90 G54\nM30', { unsure: 0, taken: [] })
  expect(screen.getByText('every block read exactly.')).toBeTruthy()
  shown('G20 G90 G54\nM30', { unsure: 2, taken: [{ code: 'M51', how: 'harmless', by: 'MK' }] })
  expect(
    screen.getByText('every block read exactly, but for: M51 moves nothing (says MK); 2 places to look at.'),
  ).toBeTruthy()
})
