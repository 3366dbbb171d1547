import * as fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { CONTRACT } from './contract.ts'
import { addressOf, ROUTES, ROW_ROUTES } from './routes.ts'
import { rowContract } from './row-contract.ts'

const ADDRESSES = [...Object.values(ROUTES), ...Object.values(ROW_ROUTES)]
/** What a server makes of an address: the standard's own parser, then each part by itself. */
const partsOf = (address: string) =>
  new URL(address, 'http://shop.local/').pathname.split('/').slice(1).map(decodeURIComponent)

describe('an address', () => {
  it('leads to what is named in it and nowhere else, whatever that holds', () => {
    const name = fc.oneof(
      fc.string({ minLength: 1, unit: 'binary' }),
      fc.stringMatching(/^[./%?#\\ 2eE]{1,6}$/),
    )
    fc.assert(
      fc.property(fc.constantFrom(...ADDRESSES), name, ([, path], id) => {
        const parts = partsOf(addressOf(path, { id, hash: id, job: id, noun: 'tools' }))
        const meant = path.slice(1).split('/')
        expect(parts).toHaveLength(meant.length)
        for (const [n, part] of meant.entries())
          if (/^:(id|hash|job)$/.test(part))
            expect(parts[n]).toBe(/^\.+$/.test(id) ? id.replaceAll('.', '%2E') : id)
          else expect(parts[n]).toBe(part === ':noun' ? 'tools' : part)
      }),
    )
  })

  it('has behind it what is asked, and nothing of what is not', () => {
    const path = ROUTES.board[1]
    fc.assert(
      fc.property(fc.string({ unit: 'binary' }), fc.nat(), (by, after) => {
        const { searchParams } = new URL(
          addressOf(path, {}, { by, after, none: undefined }),
          'http://shop.local/',
        )
        expect([...searchParams]).toEqual([
          ['by', by],
          ['after', String(after)],
        ])
      }),
    )
    expect(addressOf(path)).toBe('/api/setups')
  })

  it('is of one route only: no two are asked alike', () => {
    const asked = ADDRESSES.map((address) => address.join(' '))
    expect(new Set(asked).size).toBe(asked.length)
  })
})

describe('the contract of a route', () => {
  const all = [
    ...Object.entries(CONTRACT),
    ...Object.entries(rowContract('tools')).map(([name, contract]) => [`tools ${name}`, contract] as const),
  ]
  it.each(all)('says what %s is for, and asks for just what stands in its address', (name, contract) => {
    expect(contract.says).toMatch(/^[A-Z].*\.$/)
    const [method, path] =
      ROUTES[name as keyof typeof ROUTES] ?? ROW_ROUTES[name.split(' ')[1] as keyof typeof ROW_ROUTES]
    const params = 'params' in contract ? Object.keys(contract.params.shape) : []
    expect(params).toEqual([...path.matchAll(/:(\w+)/g)].flatMap(([, of]) => (of === 'noun' ? [] : [of])))
    // What is only looked at sends nothing, and what changes something says what.
    expect('body' in contract).toBe(method !== 'GET')
  })
})
