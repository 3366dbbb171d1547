import { act, cleanup, fireEvent, render, screen } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { PercentSlider } from './percent-slider.tsx'

describe('the slider of an override', () => {
  const told: number[] = []
  beforeEach(() => {
    vi.useFakeTimers()
    told.length = 0
    render(
      <PercentSlider
        label="Rapid"
        value={25}
        least={1}
        greatest={100}
        marks={[100, 5, 25]}
        onChange={(percent) => told.push(percent)}
      />,
    )
  })
  afterEach(() => {
    cleanup()
    vi.useRealTimers()
  })
  const slider = () => screen.getByRole('slider', { name: 'Rapid, per cent' })
  const rest = () => act(() => vi.advanceTimersByTime(200))

  it('goes to any per cent, and tells the machine once the hand rests', () => {
    fireEvent.change(slider(), { target: { value: '26' } })
    fireEvent.change(slider(), { target: { value: '31' } })
    expect(screen.getByText('31 %')).toBeDefined()
    expect(told).toEqual([])
    rest()
    expect(told).toEqual([31])
  })

  it('goes from mark to mark by keys, and no further than the last', () => {
    fireEvent.keyDown(slider(), { key: 'PageUp' })
    rest()
    fireEvent.keyDown(slider(), { key: 'PageDown' })
    rest()
    expect(told).toEqual([100, 5])
    fireEvent.keyDown(slider(), { key: 'a' })
    rest()
    expect(told).toHaveLength(2)
  })
})
