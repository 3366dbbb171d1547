import type { Profile } from '@dogleg/core/control'
import type { Machine, ToolShape } from '@dogleg/core/machine'
import { latheWorld, switchOn } from '@dogleg/core/simulated'
import { expect, expectAccessible, openAt, signIn, test } from './dogleg.ts'

const PIECE = 909

test('a bar that lies elsewhere: one tool at its face puts all of them right, at the control too', async ({
  page,
  server,
}) => {
  const press = (name: string | RegExp) => page.getByRole('button', { name, exact: true }).click()
  const rows = async <T>(noun: string): Promise<T[]> =>
    (await (await page.request.get(`${server.address}/api/${noun}`)).json())[noun]
  const actions = async (...list: object[]) => {
    const answer = await page.request.post(`${server.address}/api/simulated/lathe-1/actions`, {
      data: { actions: list },
    })
    expect(answer.ok(), await answer.text()).toBe(true)
    return (await answer.json()).view as { positions: { X: number; Z: number }; says: string; alarm: unknown }
  }
  await signIn(page)
  await page.getByRole('link', { name: 'Practice' }).click()
  await page.getByRole('link', { name: 'Lathe 1' }).click()
  await page.getByLabel('Piece number').fill(String(PIECE))
  await press('Switch it on')
  await expect(page.getByTestId('position-X')).toBeVisible()
  const machine = (await rows<Machine>('machines')).find(({ id }) => id === 'lathe-1') as Machine
  const profile = (await rows<Profile>('profiles')).find(({ id }) => id === machine.profileId) as Profile
  const tools = (await rows<ToolShape>('tools')).filter(({ machineId }) => machineId === machine.id)
  const { world, bar } = switchOn(latheWorld(PIECE, { machine, profile, tools }))
  if (!bar) throw new Error('no bar')
  const standing = (tool: number) => {
    const geometry = world.tools.find(({ shape }) => shape.number === tool)?.geometry
    if (!geometry) throw new Error(`no T${tool}`)
    return geometry
  }
  /** Brings a tool to the face, beside its middle, as a hand that sees the hidden place would. */
  const toFace = async (tool: number, before = 0) => {
    const { X, Z } = standing(tool)
    await actions({ do: 'home' }, { do: 'mount', what: 'tool', tool })
    const { positions } = await actions({ do: 'jog', axis: 'X', by: X + 0.2 })
    expect(Math.abs(positions.X - X - 0.2)).toBeLessThan(0.001)
    return actions({ do: 'jog', axis: 'Z', by: Z + bar.face + before })
  }
  const take = (axis: string) =>
    page
      .getByRole('button', { name: new RegExp(`^Take position ${axis} from`) })
      .first()
      .click()

  await page.getByRole('link', { name: 'Shop' }).click()
  await openAt(page, /O-ring grooves/, 'Zero')

  await test.step('two tools at the face as it lies', async () => {
    for (const tool of [4, 6]) {
      expect((await toFace(tool)).alarm).toBeNull()
      await page.getByRole('combobox', { name: /^Tool/ }).first().selectOption(`T${tool}`)
      await page.getByRole('tab', { name: /^Z/ }).click()
      await take('Z')
      await page.getByLabel('Z of the face').fill('0')
      await press(`Record Z of T${tool}`)
    }
  })

  let out = 0
  await test.step('the bar is pulled out to a tool: every Z is stale, and the shift by that tool holds for both', async () => {
    await toFace(4, 0.2)
    const pulled = await actions({ do: 'bar', way: 'pull' })
    expect(pulled.alarm).toBeNull()
    out = Number((pulled.positions.Z - standing(4).Z - bar.face).toFixed(4))
    expect(out).toBeGreaterThan(0.1)
    await press('Something changed…')
    await page.getByRole('radio', { name: /Part clamped again/ }).click()
    await press('Enter it in the logbook')
    await page.getByRole('tab', { name: 'Shift' }).click()
    await page.getByLabel('Tool at the face').selectOption('T4')
    await take('Z')
    await expect(page.getByTestId('answer')).toContainText(out.toFixed(4).replace(/.$/, ''))
    await expectAccessible(page)
    await press('Record the work shift')
    await expect(page.getByText('Work shift, as recorded')).toBeVisible()
    await page.getByRole('tab', { name: 'Table' }).click()
    await expect(page.getByText('by T4, RT')).toBeVisible()
    await expect(page.getByRole('row', { name: /^T6/ }).getByText(/before the part was clamped/)).toHaveCount(
      0,
    )
    // Beside X and Z the nose and the tip that the page of the tool has.
    await expect(page.getByRole('row', { name: /^T4/ })).toContainText('0.0080')
    await expect(page.getByRole('row', { name: /^T4/ }).getByRole('cell').last()).toHaveText('3')
    await expect(page.getByRole('row', { name: /^T6/ }).getByRole('cell').last()).toHaveText('2')
    await expectAccessible(page)
  })

  await test.step('a nose in the other unit is refused on the page of the tool', async () => {
    await page.goto(`${server.address}/tools/lathe-1-t4`)
    await expect(page.getByTestId('tip-number')).toHaveText('3')
    await page.getByLabel('Programmed point').selectOption('high')
    await expect(page.getByTestId('tip-number')).toHaveText('4')
    await page.getByLabel('Nose radius, in').fill('0.2')
    await press('Save')
    await expect(page.getByText(/no larger than half of its insert/)).toBeVisible()
    await expectAccessible(page)
    await page.goto(server.address)
    await openAt(page, /O-ring grooves/, 'Zero')
    await page.getByRole('tab', { name: 'Table' }).click()
  })

  await test.step('keyed in at the control, a tool that was not touched again comes to the face', async () => {
    const shown = await page.getByRole('row', { name: /^T6/ }).locator('.digits').allTextContents()
    const z = Number(
      shown
        .map((text) => /-\d+\.\d{4}/.exec(text)?.[0])
        .filter(Boolean)
        .at(-1),
    )
    expect(Math.abs(z - standing(6).Z - bar.face)).toBeLessThan(0.0002)
    await actions(
      { do: 'key-offset', offset: 'T6', axis: 'X', value: standing(6).X },
      { do: 'key-offset', offset: 'T6', axis: 'Z', value: z },
      { do: 'key-offset', offset: 'G54', axis: 'Z', value: out },
    )
    await page.getByRole('link', { name: 'Practice' }).click()
    await page.getByRole('link', { name: 'Lathe 1' }).click()
    await page.getByRole('tab', { name: 'Offsets and lengths' }).click()
    await expect(page.getByTestId('work-shift')).toHaveText(out.toFixed(4))
    await actions(
      { do: 'load', text: 'G20 G90 G18 G40 G80 G99\nT0606\nG0 X4. Z0.5\nM0\nM30' },
      { do: 'single', on: false },
      { do: 'override', rapid: 100 },
      { do: 'start' },
    )
    await expect
      .poll(async () => {
        const { view } = await (await page.request.get(`${server.address}/api/simulated/lathe-1`)).json()
        return Math.abs(view.positions.Z - (standing(6).Z + bar.face + out + 0.5))
      })
      .toBeLessThan(0.0005)
  })
})
