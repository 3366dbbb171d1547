import { expect, expectAccessible, expectFits, openAt, signIn, test, toStep } from './dogleg.ts'

/** Ids as another installation would have made them. */
let made = 0
const newId = () => `01KAS00000000000000000000${++made}`

interface Row {
  id: string
  machineId?: string
  profileId?: string
}

test('an entry that a newer Dogleg wrote, and one that is damaged, take nothing down and are named', async ({
  page,
  server,
}) => {
  await signIn(page)
  await openAt(page, /second side/, 'Zero')
  const setup = /setups\/([^/]+)/.exec(page.url())?.[1] ?? ''
  await expect(page.getByRole('tab', { name: 'X -15.6504' })).toBeVisible()
  await expect(page.getByText(/cannot be read here/)).toHaveCount(0)

  // As they come with the file of a setup from another installation.
  const get = async <T>(path: string) => (await (await page.request.get(server.address + path)).json()) as T
  const { entries } = await get<{ entries: { kind: string; machine?: Row }[] }>(
    `/api/setups/${setup}/entries`,
  )
  const on = entries.find(({ kind }) => kind === 'opened')?.machine?.id
  const { machines } = await get<{ machines: Row[] }>('/api/machines')
  const machine = machines.find(({ id }) => id === on)
  const { profiles } = await get<{ profiles: Row[] }>('/api/profiles')
  const at = new Date().toISOString()
  const file = {
    format: 'dogleg-setup',
    version: 2,
    made: at,
    by: 'LB',
    sheet: {},
    entries: [...entries, { id: newId(), setup, at, by: 'LB', kind: 'scanned', cloud: [[1, 2, 3]] }],
    unread: [{ id: newId(), at, raw: '{"id":"01M8JSHE3K9HABF3T635A5XCKS","kind":"pick' }],
    reference: {
      machines: [machine],
      profiles: profiles.filter(({ id }) => id === machine?.profileId),
      vises: [],
      collets: [],
      tools: [],
      materials: [],
    },
  }
  const taken = await page.request.post(`${server.address}/api/setup-files`, { data: file })
  expect(await taken.json()).toMatchObject({ setup, added: 2 })

  // What stood before them is stale, and says why; the page works.
  await expect(page.getByText('2 entries of this log cannot be read here.')).toBeVisible()
  await page.getByRole('tab', { name: /X -15/ }).click()
  await expect(
    page.getByText(/before an entry that (is damaged|was written by a newer Dogleg)/).first(),
  ).toBeVisible()
  await expectAccessible(page)
  await expectFits(page, { vertically: false })
  await page.getByRole('link', { name: 'Shop', exact: true }).first().click()
  await expect(page.getByText(/2 entries cannot be read/)).toBeVisible()
  await expectAccessible(page)

  // The logbook has them word for word; one that counts for nothing is struck out.
  await openAt(page, /second side/, 'Zero')
  await page.getByRole('link', { name: 'Logbook' }).first().click()
  const newer = page.locator('tr[data-kind=unread]', { hasText: 'Written by a newer Dogleg: scanned' })
  const damaged = page.locator('tr[data-kind=unread]', { hasText: 'Damaged' })
  await expect(newer.getByText('"cloud":[[1,2,3]]')).toBeVisible()
  await expect(damaged.getByText('"kind":"pick')).toBeVisible()
  await expectAccessible(page)
  for (const line of [damaged, newer]) {
    await line.getByRole('button', { name: /^Strike out/ }).click()
    if (line === newer) await expect(page.getByText('G54 X is fresh again.')).toBeVisible()
    await page.getByLabel('Reason').fill('a test of another installation')
    await page.getByRole('button', { name: 'Strike it out' }).click()
    await expect(line.getByText(/Struck out by RT/)).toBeVisible()
  }
  await expect(page.getByText(/cannot be read here\./)).toHaveCount(0)
  await toStep(page, 'Zero')
  await expect(page.getByText(/before an entry that/)).toHaveCount(0)
})
