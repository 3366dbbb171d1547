import { execFileSync } from 'node:child_process'
import { join } from 'node:path'
import type { Page } from '@playwright/test'
import { ulid } from 'ulid'
import { expect, type Server } from './dogleg.ts'

/** Whoever is of the shop in these tests, made up. */
const PEOPLE = [
  { initials: 'RT', name: 'R. T.', may: 'lead', pin: '2580' },
  { initials: 'KM', name: 'K. M.', may: 'operator', pin: '1973' },
  { initials: 'LV', name: 'L. V.', may: 'operator', pin: '7294' },
  { initials: 'WALL', name: 'Screen on the wall', may: 'looker', pin: '60708' },
] as const
export type Who = (typeof PEOPLE)[number]['initials']

/** Names the people of a shop at its one PC, and starts it again as on a network. */
export async function signsIn(server: Server) {
  for (const person of PEOPLE) {
    const response = await fetch(`${server.address}/api/people`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ id: ulid(), ...person }),
    })
    expect(response.status).toBe(201)
  }
  await server.stop()
  await server.start({ DOGLEG_SIGN_IN: 'always' })
}

/** A code for one tablet, as it is made at the server's own keyboard. */
export function codeAtKeyboard(server: Server): string {
  const command = join(import.meta.dirname, '../server/dist/logbook-command.js')
  const said = execFileSync(process.execPath, [command, 'people', 'tablet'], {
    env: { ...process.env, DOGLEG_DATA: server.file },
    encoding: 'utf8',
  })
  return /(\d{3} \d{3})/.exec(said)?.[1] ?? ''
}

/** Lets this tablet in. */
export async function letIn(page: Page, code: string, name: string) {
  await page.getByLabel('The code, six digits').fill(code)
  await page.getByLabel('What this tablet is called').fill(name)
  await page.getByRole('button', { name: 'Let it in' }).click()
  await expect(page.getByRole('heading', { name: 'Who is at this tablet?' })).toBeVisible()
}

/** Signs somebody in where the tablet is locked, by the keyboard. */
export async function enter(page: Page, who: Who, pin: string = pinOf(who)) {
  await page.getByLabel(/initials/).fill(who)
  await page.getByLabel('PIN', { exact: true }).fill(pin)
  await page.keyboard.press('Enter')
}
export const pinOf = (who: Who) => PEOPLE.find(({ initials }) => initials === who)?.pin ?? ''
