import type { Material } from '@dogleg/core/cutting'
import { exampleTap, newTap, tapForm, tapSizes } from '@dogleg/core/cycles/tapping'
import { demoReference } from '@dogleg/core/demo'
import { sheetCase } from '@dogleg/core/prepare'
import { render, screen } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import { Example } from '../drawing/example.ts'
import { Words } from '../drawing/marks.tsx'
import { CycleSheet } from '../drawing/sheet.tsx'
import { logOf, openSetup, renderInSetup } from '../testing/shop.tsx'
import { CycleFormProvider } from './cycle-field.tsx'
import { TapForm, type TapPart } from './tap-form.tsx'

const log = logOf(/first side/)
const { setup } = openSetup(log)
const [material] = demoReference.materials as [Material]

const show = (part: TapPart, more: object, material_ = 'aluminium') => {
  const draft = { ...newTap('inch', false), ...more }
  const read = tapForm.read(draft, 'inch')
  const problems = read.ok ? {} : read.problems
  const example = exampleTap('inch')
  const sizes = tapSizes(
    tapForm.lenient(draft, 'inch', example),
    sheetCase(setup, { turned: false }, 'G54', demoReference),
    material,
  )
  return renderInSetup(
    <CycleFormProvider
      value={{
        draft,
        change: () => undefined,
        changeAll: () => undefined,
        problems,
        missing: [
          ...Object.keys(problems).filter((field) => problems[field]?.empty),
          ...(material_ === '' ? ['material'] : []),
        ],
        drawn: [...Object.keys(example), 'material'],
        unit: 'inch',
        lit: undefined,
        onLit: () => undefined,
      }}
    >
      <TapForm part={part} sizes={sizes} placesKnown={false} unit="inch" machine={setup.machine} />
    </CycleFormProvider>,
    log,
  )
}
const placeholder = (label: string) => screen.getByLabelText<HTMLInputElement>(label).placeholder

describe('what a form calculates', () => {
  it('is not shown before the thread is chosen', () => {
    show('thread', {})
    expect(screen.getByLabelText<HTMLSelectElement>('Thread').value).toBe('')
    expect(placeholder('Tap drill')).toBe('')
    expect(screen.getByText('calculated later')).toBeTruthy()
    expect(screen.queryByText(/% of/)).toBeNull()
    expect(screen.queryByText(/outside,/)).toBeNull()
  })

  it('is shown once all that it comes from is known, though the depth is not', () => {
    show('thread', { thread: '1/4-20 UNC' })
    expect(Number(placeholder('Tap drill'))).toBeGreaterThan(0.19)
    expect(screen.getByText('calculated; type over')).toBeTruthy()
    expect(screen.getByText(/% of/)).toBeTruthy()
  })

  it('waits for the depth and the places where it rests on them', () => {
    show('hole', { thread: '1/4-20 UNC' })
    expect(placeholder('Tap tip, deep')).toBe('')
    expect(placeholder('R plane')).not.toBe('')
  })

  it('waits for the material where it is a speed', () => {
    show('speed', { thread: '1/4-20 UNC' }, '')
    expect(placeholder('Tap')).toBe('')
  })
})

describe('a drawing of an example', () => {
  it('has no number that somebody could take for theirs, and says what it is', () => {
    const drawing = (
      <CycleSheet label="hole, 0.5000 deep" width={100} height={50}>
        <Words at={{ x: 0, y: 0 }}>R {'0.1000'} of 1/4, -.5</Words>
      </CycleSheet>
    )
    const { unmount } = render(<Example value="the sizes are still to be typed">{drawing}</Example>)
    expect(screen.getByText('R ? of ?/?, ?')).toBeTruthy()
    expect(screen.getByRole('img').getAttribute('aria-label')).toBe(
      'An example: the sizes are still to be typed',
    )
    unmount()
    render(drawing)
    expect(screen.getByText('R 0.1000 of 1/4, -.5')).toBeTruthy()
    expect(screen.getByRole('img').getAttribute('aria-label')).toBe('hole, 0.5000 deep')
  })
})
