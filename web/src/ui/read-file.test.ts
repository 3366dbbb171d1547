import { describe, expect, it } from 'vitest'
import { readFile } from './read-file.ts'

describe('a file that was chosen', () => {
  it('is read as text, an empty one too', async () => {
    expect(await readFile(new File(['G0 X1.\n'], 'slot.nc'))).toEqual({ ok: true, text: 'G0 X1.\n' })
    expect(await readFile(new File([], 'none.nc'))).toEqual({ ok: true, text: '' })
  })

  it('that is gone says so, by its name, with what to do', async () => {
    const gone = new File(['x'], 'slot.nc')
    gone.text = () => Promise.reject(new DOMException('gone', 'NotReadableError'))
    expect(await readFile(gone)).toEqual({
      ok: false,
      says: expect.stringMatching(/^slot\.nc can’t be read: .* Choose it again\.$/),
    })
  })
})
