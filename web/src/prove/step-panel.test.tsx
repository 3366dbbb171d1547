import type { Profile } from '@dogleg/core/control'
import { demoReference } from '@dogleg/core/demo'
import type { Machine } from '@dogleg/core/machine'
import { prove } from '@dogleg/core/prove'
import type { Setup } from '@dogleg/core/setup'
import { act, fireEvent, render, screen } from '@testing-library/react'
import { expect, it } from 'vitest'
import { StepPanel } from './step-panel.tsx'
import { Stepper } from './stepper.ts'

const [mill, lathe] = demoReference.machines as [Machine, Machine]
const [compact] = demoReference.profiles as [Profile]

/** The panel of a program, before its first block. */
function stepping(text: string, machine = mill, profile: Profile = compact) {
  const stepper = new Stepper()
  const proof = prove({
    text,
    profile,
    machine,
    unit: 'inch',
    frame: 'G54',
    offsets: [],
    lengths: [],
    tools: [],
    layout: { unit: 'inch', bodies: [] },
  })
  const setup = { unit: 'inch', machine } as unknown as Setup
  render(<StepPanel setup={setup} stepper={stepper} otherwise="Nothing yet." into onInto={() => {}} />)
  return { load: () => act(() => stepper.load(proof)), stepper }
}
/** Each axis with its distance to go. */
const toGo = () =>
  screen
    .getAllByRole('rowheader')
    .map((head) => `${head.textContent} ${head.nextElementSibling?.textContent?.trim()}`)
const press = (name: string) => fireEvent.click(screen.getByRole('button', { name }))

it('shows what the next press does, goes on and back by keys and buttons, and says when it is over', () => {
  const { load } = stepping('G20 G90 G54\nG0 X1.\nY2.\nM30')
  expect(screen.getByText('Nothing yet.')).toBeTruthy()
  load()
  expect(screen.getByText('nothing moves.')).toBeTruthy()
  press('Next')
  const [before] = toGo()
  expect(screen.getByText(/^rapid, .* to the (left|right)\.$/)).toBeTruthy()
  fireEvent.keyDown(window, { key: ' ' })
  expect(screen.getByText('The next press, line 3:')).toBeTruthy()
  expect(toGo()[0]).toBe('X 0.0000')
  fireEvent.keyDown(window, { key: 'ArrowLeft' })
  expect(toGo()[0]).toBe(before)
  fireEvent.keyDown(window, { key: 'End' })
  expect(screen.getByText('The program has ended.')).toBeTruthy()
  expect(toGo()).toEqual(['X 0.0000', 'Y 0.0000', 'Z 0.0000'])
  fireEvent.keyDown(window, { key: 'Home' })
  expect(screen.getByText('The next press, line 1:')).toBeTruthy()
})

it('a key that is pressed with others, or in a field, is no step', () => {
  const { load } = stepping('G20 G90 G54\nG0 X1.\nM30')
  load()
  fireEvent.keyDown(window, { key: 'ArrowRight', ctrlKey: true })
  fireEvent.keyDown(screen.getByRole('slider'), { key: 'ArrowRight' })
  expect(screen.getByText('The next press, line 1:')).toBeTruthy()
  fireEvent.change(screen.getByRole('slider'), { target: { value: '2' } })
  expect(screen.getByText('The next press, line 3:')).toBeTruthy()
})

it('on a lathe whose spindle is an axis: its angle to go, and on the face what is written', () => {
  const driven = {
    turns: null,
    axis: null,
    face: { on: 'G112', off: 'G113', x: 'diameter', across: 'C' },
  } as const
  const profile = { ...compact, reading: { ...compact.reading, driven } }
  const text = 'G20 G98 T0101\nG0 X2. Z.1 C0.\nC-30.\nC0.\nG112\nG1 X1. C.5 F10.\nG113\nM30'
  const { load, stepper } = stepping(text, lathe, profile)
  load()
  act(() => stepper.go(2))
  expect(toGo()).toEqual(['X 0.0000', 'Z 0.0000', 'C -30.000°'])
  act(() => stepper.go(5))
  expect(toGo()).toEqual(['X -1.0000', 'C 0.5000', 'Z 0.0000'])
  expect(screen.getByText('feed on the face, X -1.0000, C 0.5000, turning 45°.')).toBeTruthy()
  act(() => stepper.go(6))
  expect(toGo()).toEqual(['X 0.0000', 'Z 0.0000'])
})
