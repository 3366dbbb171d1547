import { demoReference } from '@dogleg/core/demo'
import { prove } from '@dogleg/core/prove'
import { fireEvent, render, screen } from '@testing-library/react'
import { expect, it, vi } from 'vitest'
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
    />
  )
  const { rerender } = render(panel(findingsOf(LOOP, 100_000)))
  expect(screen.getByText(/more work than was allowed .* What comes after it was not read/)).toBeTruthy()
  fireEvent.click(screen.getByRole('button', { name: 'Read ten times as far' }))
  expect(onFurther).toHaveBeenCalledOnce()
  rerender(panel(findingsOf(LOOP, 1_000_000)))
  expect(screen.queryByRole('button', { name: 'Read ten times as far' })).toBeNull()
})
