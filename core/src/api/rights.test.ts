import { describe, expect, it } from 'vitest'
import { RIGHTS, ROUTES, ROW_RIGHTS, ROW_ROUTES, STANDINGS, standsFor } from './index.ts'

// That the server holds to the table is walked in server/src/people/rights.test.ts; here the table is held to what a shop agreed on.

const namesOf = (stands: (typeof STANDINGS)[number]) =>
  Object.entries(RIGHTS).flatMap(([name, least]) => (least === stands ? [name] : []))

describe('the rights', () => {
  it('of a foreign tablet are to ask whether it is let in, and to be let in', () => {
    expect(namesOf('anyone')).toEqual(['session', 'letIn'])
  })
  it('of a tablet with nobody at it are to sign in, to be left, and to send what was signed', () => {
    expect(namesOf('tablet')).toEqual(['signIn', 'signOut', 'addEntries'])
  })
  it('of whoever reads only are to look, and to change their own PIN', () => {
    for (const name of namesOf('looker'))
      if (name !== 'changePin') expect(ROUTES[name as keyof typeof ROUTES][0]).toBe('GET')
    expect([ROW_RIGHTS.rows, ROW_RIGHTS.rowVersions]).toEqual(['looker', 'looker'])
  })
  it('of a lead are machines, profiles, tools and rows, people, tablets, backups, and what brings entries of others', () => {
    expect(namesOf('lead').sort()).toEqual(
      [
        ...['people', 'addPerson', 'savePerson', 'tablets', 'newCode', 'saveTablet'],
        ...['makeBackup', 'stopBackup', 'importSetup', 'setUpShop'],
      ].sort(),
    )
    for (const [name, [method]] of Object.entries(ROW_ROUTES))
      if (method !== 'GET') expect(ROW_RIGHTS[name as keyof typeof ROW_RIGHTS]).toBe('lead')
  })
  it('grow from one to the next', () => {
    for (const [n, is] of STANDINGS.entries())
      for (const [m, least] of STANDINGS.entries()) expect(standsFor(is, least)).toBe(n >= m)
  })
})
