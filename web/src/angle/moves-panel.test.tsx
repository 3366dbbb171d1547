import { offsetOf } from '@dogleg/core/setup'
import { act, fireEvent, screen } from '@testing-library/react'
import { describe, expect, it } from 'vitest'
import { logOf, openSetup, renderInSetup } from '../testing/shop.tsx'
import { MovesPanel } from './moves-panel.tsx'

const log = logOf(/first side/)
const show = () => renderInSetup(<MovesPanel offset={offsetOf(openSetup(log).setup, 'G54')} />, log)
const choose = (file: File) =>
  act(async () => fireEvent.change(screen.getByLabelText(/file/i), { target: { files: [file] } }))
const text = () => screen.getByLabelText(/Program, pasted or opened/) as HTMLTextAreaElement

describe('turning a program of the tablet', () => {
  it('says that a file cannot be read, and keeps what stands there', async () => {
    show()
    await choose(new File(['G0 X1.'], 'good.nc'))
    expect(text().value).toBe('G0 X1.')
    const gone = new File(['x'], 'gone.nc')
    gone.text = () => Promise.reject(new DOMException('gone', 'NotReadableError'))
    await choose(gone)
    expect(screen.getByText(/gone\.nc can’t be read/)).toBeTruthy()
    expect(text().value).toBe('G0 X1.')
    await choose(new File(['G0 X2.'], 'other.nc'))
    expect(screen.queryByText(/can’t be read/)).toBeNull()
    expect(text().value).toBe('G0 X2.')
  })
})
