import { describe, expect, it } from 'vitest'
import { readConfig } from './config.ts'
import { kill, newFolder, refusedStart, startServer } from './testing/process.ts'

describe('settings', () => {
  it('listen on the loopback and answer to its names unless told otherwise', () => {
    const config = readConfig({}, 0)
    expect([config.host, config.port]).toEqual(['127.0.0.1', 7080])
    expect([...config.hosts]).toEqual(['localhost', '127.0.0.1', '[::1]'])
    expect([...readConfig({ DOGLEG_HOSTS: 'Shop-PC, 192.0.2.10' }, 0).hosts]).toContain('shop-pc')
  })

  it('say what is wrong with a value', () => {
    expect(() => readConfig({ DOGLEG_PORT: 'abc' }, 0)).toThrow(/DOGLEG_PORT is a number/)
    expect(() => readConfig({ DOGLEG_NOW: 'yesterday' }, 0)).toThrow(/DOGLEG_NOW is a time/)
  })

  it('a port that is taken gets a sentence with the way out', async () => {
    const first = await startServer(`${newFolder()}/log.sqlite`)
    const port = new URL(first.address).port
    const { code, says } = await refusedStart(`${newFolder()}/log.sqlite`, { port })
    await kill(first)
    expect([code, says]).toEqual([2, expect.stringMatching(/is taken.*DOGLEG_PORT=\d+ npm start/)])
  }, 30_000)
})
