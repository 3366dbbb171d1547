import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import Sqlite from 'libsql'
import { describe, expect, it } from 'vitest'
import { newFolder } from '../testing/process.ts'
import { servers } from '../testing/shop.ts'

const { start, stop } = servers()
const command = fileURLToPath(new URL('../../dist/logbook-command.js', import.meta.url))
const main = fileURLToPath(new URL('../../dist/main.js', import.meta.url))

/** What stands on the keyboard's screen after a command and what was typed. */
function type(file: string, words: string[], ...typed: string[]) {
  const { status, stdout, stderr } = spawnSync(process.execPath, [command, 'people', ...words], {
    env: { ...process.env, DOGLEG_DATA: file },
    input: typed.map((line) => `${line}\n`).join(''),
    encoding: 'utf8',
  })
  return { status, says: stdout + stderr }
}
const newFile = () => join(newFolder(), 'log.sqlite')

const startOn = (file: string, settings: Record<string, string>) =>
  spawnSync(process.execPath, [main], {
    env: { ...process.env, DOGLEG_DATA: file, DOGLEG_NEW: 'empty', DOGLEG_PORT: '0', ...settings },
    encoding: 'utf8',
    timeout: 20_000,
  })

const LONG = 60_000

describe('npm run people', () => {
  it(
    'names the first lead, lets in a tablet and sets a PIN, while Dogleg runs',
    async () => {
      const file = newFile()
      const { address } = await start(file, { settings: { DOGLEG_NEW: 'empty' } })
      expect(type(file, ['pin', 'RT']).says).toMatch(/nobody RT/)
      expect(type(file, ['tablet']).says).toMatch(/Name the first lead/)
      const added = type(file, ['add'], 'RT', '', 'R. T.', '1234', '25', '2580')
      expect(added).toMatchObject({ status: 0, says: expect.stringMatching(/first lead.*RT may lead/s) })
      // What cannot be is said, and asked again.
      expect(added.says).toMatch(/whose initials.*tried first.*4 to 8 digits/s)
      expect(type(file, ['add'], 'rt')).toMatchObject({
        status: 2,
        says: expect.stringMatching(/RT is R\. T\./),
      })
      expect(type(file, ['add'], 'KM', 'K. M.', 'boss', 'operator', '1973').says).toMatch(/KM may record/)
      expect(type(file, []).says).toMatch(/KM +K\. M\. +operator.*RT +R\. T\. +lead/s)
      expect(type(file, ['tablet']).says).toMatch(/within ten minutes: \d{3} \d{3}/)
      expect(type(file, ['dance'])).toMatchObject({ status: 2 })
      const before = await (await fetch(`${address}/api/people`)).json()
      expect(before).toMatchObject({ people: [{ initials: 'KM' }, { initials: 'RT' }] })
      const pinOf = (db = new Sqlite(file, { readonly: true })) => db.prepare('select hash from pins').all()
      const old = pinOf()
      expect(type(file, ['pin', 'rt'], '7294')).toMatchObject({ status: 0 })
      expect(pinOf()).not.toEqual(old)
      expect(JSON.stringify(pinOf())).toMatch(/\$argon2id\$v=19\$m=19456,t=2,p=1\$/)
      // Whoever is interrupted has changed nothing.
      expect(type(file, ['add'], 'ZZ')).toEqual({
        status: 2,
        says: expect.stringMatching(/Nothing was changed/),
      })
      expect(type(file, []).says).not.toMatch(/ZZ/)
    },
    LONG,
  )

  it('says what to do where there is no logbook', () => {
    expect(type(newFile(), [])).toMatchObject({ status: 2, says: expect.stringMatching(/no logbook .* yet/) })
  })
})

describe('listening on a network', () => {
  it.each([
    [{ DOGLEG_HOST: '0.0.0.0' }],
    [{ DOGLEG_HOST: '::' }],
    [{ DOGLEG_HOSTS: 'shop-pc' }],
    [{ DOGLEG_SIGN_IN: 'always' }],
  ])(
    'is refused as long as nobody leads the shop, with how to set it up: %o',
    (settings) => {
      const { status, stderr } = startOn(newFile(), settings)
      expect([status, stderr]).toEqual([2, expect.stringMatching(/npm run people.*then start it again/)])
    },
    LONG,
  )

  it(
    'is let once there is a lead: then nothing is answered to whoever is not let in',
    async () => {
      const file = newFile()
      const first = await start(file, { settings: { DOGLEG_NEW: 'empty' } })
      type(file, ['add'], 'RT', 'R. T.', '2580')
      await stop(first)
      const { address } = await start(file, { settings: { DOGLEG_HOST: '0.0.0.0' } })
      const { port } = new URL(address)
      const shop = `http://127.0.0.1:${port}`
      expect(await (await fetch(`${shop}/api/session`)).json()).toEqual({ signs: true })
      expect((await fetch(`${shop}/api/setups`)).status).toBe(401)
      const code = /: (\d{3} \d{3})/.exec(type(file, ['tablet']).says)?.[1]
      const post = (path: string, body: object, cookie = '') =>
        fetch(`${shop}${path}`, {
          method: 'POST',
          headers: { 'content-type': 'application/json', cookie },
          body: JSON.stringify(body),
        })
      const letIn = await post('/api/session/tablet', { code, name: 'Office' })
      const cookie = letIn.headers.get('set-cookie')?.split(';')[0] ?? ''
      expect((await post('/api/session/person', { by: 'RT', pin: '2580' }, cookie)).status).toBe(201)
      const asked = async () => (await fetch(`${shop}/api/setups`, { headers: { cookie } })).status
      expect(await asked()).toBe(200)
      // A PIN that is set at the keyboard ends what anybody does under the old one.
      type(file, ['pin', 'RT'], '7294')
      expect(await asked()).toBe(401)
    },
    LONG,
  )
})
