import { describe, expect, it } from 'vitest'
import { openProgram, sizeSaid } from './open-program.ts'

const main = new File(['O100\nG20\nM98 P200\nM30\n'], 'side1.nc')
const sub = new File(['%\nG0 X1.\nM99\n%'], 'O200.nc')
const sized = (name: string, size: number) => ({ name, size }) as File

describe('what is opened in Prove', () => {
  it('one file is what stands in it, under its name', async () => {
    expect(await openProgram([main])).toEqual({
      ok: true,
      program: { title: 'side1.nc', text: 'O100\nG20\nM98 P200\nM30\n' },
    })
  })

  it('several are one program: the main one first, each other under its number', async () => {
    expect(await openProgram([sub, main])).toEqual({
      ok: true,
      program: { title: 'side1.nc', text: 'O100\nG20\nM98 P200\nM30\nO200\nG0 X1.\nM99\n' },
    })
  })

  it('several that do not go together are refused, and why is said', async () => {
    expect(await openProgram([sub, new File(['G0 X1.'], 'other.nc')])).toMatchObject({
      ok: false,
      says: expect.stringContaining('Which of these is the main program?'),
    })
  })

  it('one that cannot be read any more is named', async () => {
    const gone = new File(['x'], 'gone.nc')
    gone.stream = () => {
      throw new Error('gone')
    }
    for (const files of [[gone], [main, gone]])
      expect(await openProgram(files)).toMatchObject({
        ok: false,
        says: expect.stringMatching(/^gone\.nc can't be read/),
      })
  })

  it('a hundred million characters of one, two million of several', () => {
    expect(sizeSaid([sized('a', 100_000_000)])).toBeUndefined()
    expect(sizeSaid([sized('a', 100_000_001)])).toMatch(/^a has 100 million characters/)
    expect(sizeSaid([sized('a', 1_000_000), sized('b', 1_000_000)])).toBeUndefined()
    expect(sizeSaid([sized('a', 1_500_000), sized('b', 1_500_000)])).toBe(
      'Together they have 3 million characters; at most 2 million are taken at once.',
    )
  })
})
