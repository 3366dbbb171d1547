import type { Page } from '@playwright/test'
import { expect, expectAccessible, expectFits, openAt, signIn, test, UPRIGHT, WIDE } from './dogleg.ts'

/** Words of the drawings on screen that are smaller than the page's own, that are cut off, or that lie over one another. */
const unreadable = (page: Page) =>
  page.evaluate(() => {
    const least = Number.parseFloat(getComputedStyle(document.documentElement).fontSize)
    const said: string[] = []
    for (const svg of document.querySelectorAll<SVGSVGElement>('main svg')) {
      const sheet = svg.getBoundingClientRect()
      const words = [...svg.querySelectorAll('text')]
        .map((text) => ({ text, says: text.textContent?.trim() ?? '', box: text.getBoundingClientRect() }))
        .filter(({ says, box }) => says !== '' && box.width > 0)
      for (const [n, { text, says, box }] of words.entries()) {
        const at = text.getScreenCTM()
        const size = Number.parseFloat(getComputedStyle(text).fontSize) * Math.hypot(at?.a ?? 0, at?.b ?? 0)
        if (size < least - 0.1) said.push(`${says}: ${size.toFixed(1)} px`)
        if (
          box.left < sheet.left - 1 ||
          box.right > sheet.right + 1 ||
          box.bottom > sheet.bottom + 1 ||
          box.top < sheet.top - 3
        )
          said.push(`${says}: cut off`)
        for (const other of words.slice(n + 1)) {
          const across = Math.min(box.right, other.box.right) - Math.max(box.left, other.box.left)
          // Of a line of words the upper quarter and the lower are empty.
          const down = Math.min(box.bottom, other.box.bottom) - Math.max(box.top, other.box.top)
          if (across > 1 && down > 0.45 * Math.min(box.height, other.box.height))
            said.push(`${says} over ${other.says}`)
        }
      }
    }
    return said
  })

const TASKS = [
  [/first side/, ['Hold', 'Zero', 'Angle', 'Code', 'Prove', 'Run']],
  [/second side/, ['Zero']],
  [/Drawtube/, ['Hold', 'Zero', 'Code', 'Prove']],
] as const

/** What is on screen fits across, and each word of its drawings can be read. */
async function reads(page: Page, what: string) {
  await expectFits(page, { vertically: false })
  await expect(async () => expect([what, await unreadable(page)]).toEqual([what, []])).toPass({
    timeout: 5000,
  })
}

for (const [name, size, window] of [
  ['as usual, wide', 'usual', WIDE],
  ['as usual, upright', 'usual', UPRIGHT],
  ['large, wide', 'large', WIDE],
] as const)
  test(`words and keys ${name}: each task fits across, and every word of a drawing is read at arm’s length`, async ({
    page,
  }) => {
    await page.setViewportSize(window)
    await signIn(page)
    await page.evaluate((chosen) => localStorage.setItem('dogleg.size', chosen), size)
    await page.reload()
    for (const [title, steps] of TASKS) {
      await page.getByRole('link', { name: 'Shop', exact: true }).click()
      await openAt(page, title, steps[0])
      for (const step of steps) {
        await page
          .getByRole('navigation', { name: 'Steps of this setup' })
          .getByRole('link', { name: step })
          .click()
        const main = page.locator('main')
        await expect(main.locator('svg').first()).toBeVisible()
        await reads(page, step)
        const tabs = main.getByRole('tab')
        for (let n = 0; n < (await tabs.count()); n++) {
          await tabs.nth(n).click()
          await reads(page, `${step}, ${await tabs.nth(n).textContent()}`)
          const found = page.getByLabel('Found with')
          if (step !== 'Zero' || (await found.count()) === 0) continue
          for (const way of await found.locator('option').allTextContents()) {
            await found.selectOption(way)
            await reads(page, `Zero, ${way}`)
          }
        }
      }
    }
    await expectAccessible(page)
  })
