import { act, renderHook } from '@testing-library/react'
import { afterEach, describe, expect, it, vi } from 'vitest'
import { fillStorage } from '../testing/full-storage.ts'
import { signingServer } from '../testing/signing.ts'
import { discard, post, useWaiting } from './outbox.ts'
import { noteSession } from './session.ts'
import { readWaitingFile, takeWaiting, waitingFile } from './waiting-file.ts'

afterEach(() => vi.unstubAllGlobals())

const note = (n: number, by = 'KM') => ({
  id: `01KB000000000000000000000${n}`,
  setup: '01KB0000000000000000000000',
  at: '2026-11-24T08:00:00.000Z',
  by,
  kind: 'note',
  text: `Note ${n}`,
})
const waitingNow = () => renderHook(() => useWaiting()).result.current

describe('what waits on a tablet', () => {
  it('whose storage is full is saved as a file, and sent from another one, where nobody signs it for somebody else', async () => {
    const server = signingServer()
    server.away = true
    fillStorage()
    act(() => {
      post(note(1))
      post(note(2, 'RT'))
    })
    const text = waitingFile(waitingNow())
    for (const each of waitingNow()) act(() => discard(each))
    vi.unstubAllGlobals()
    expect(readWaitingFile(text)).toEqual([note(1), note(2, 'RT')])

    const other = signingServer()
    other.sittings = [{ by: 'KM', over: false }]
    other.here = 0
    noteSession(other.session() as never)
    const read = readWaitingFile(text)
    act(() => {
      if (read && !('says' in read)) takeWaiting(read)
    })
    await act(async () => {
      await new Promise((resolve) => setTimeout(resolve, 20))
    })
    expect(other.taken).toEqual([])
    expect(waitingNow().map(({ sitting }) => sitting)).toEqual([undefined, undefined])
    for (const each of waitingNow()) act(() => discard(each))
  })

  it('is told from any other file, and what is damaged is not taken', () => {
    expect(readWaitingFile('no json')).toBeUndefined()
    expect(readWaitingFile('{"dogleg":"setup"}')).toBeUndefined()
    expect(readWaitingFile('[]')).toBeUndefined()
    expect(readWaitingFile('{"dogleg":"waiting","form":2,"entries":[]}')).toMatchObject({
      says: expect.stringMatching(/newer/),
    })
    expect(readWaitingFile('{"dogleg":"waiting","form":1,"entries":[{"id":1}]}')).toMatchObject({
      says: expect.stringMatching(/no entry/),
    })
  })
})
