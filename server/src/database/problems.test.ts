import { describe, expect, it } from 'vitest'
import { databaseProblem } from './problems.ts'

/** An error as the driver and the query builder wrap it. */
const wrapped = (code: string) =>
  new Error('Failed query: insert into …', { cause: Object.assign(new Error('of the driver'), { code }) })

describe('an error of the logbook’s file', () => {
  it.each([
    ['SQLITE_FULL', 'logbook-unwritable', /Check the disk/],
    ['SQLITE_IOERR_WRITE', 'logbook-unwritable', /nothing was changed/],
    ['SQLITE_READONLY', 'logbook-unwritable', /who may write the file/],
    ['SQLITE_CORRUPT', 'logbook-damaged', /npm run restore/],
    ['SQLITE_NOTADB', 'logbook-damaged', /keep a copy of the file/],
  ])('is told in a sentence, however it is wrapped: %s', (code, as, says) => {
    const problem = databaseProblem(wrapped(code))
    expect(problem).toMatchObject({ status: 503, code: as })
    expect(problem?.message).toMatch(says)
  })

  it('is none where the file has no part in it', () => {
    for (const error of [
      new Error('x'),
      wrapped('SQLITE_CONSTRAINT'),
      wrapped('EPIPE'),
      undefined,
      'SQLITE_FULL',
    ])
      expect(databaseProblem(error)).toBeUndefined()
  })
})
