import { expect, type Locator, type Page } from '@playwright/test'
import { SETTLE_MS, signIn } from './dogleg.ts'

/** Somebody comes to the tablet. */
export async function comes(page: Page, initials: string) {
  await signIn(page, initials)
  return new Person(page)
}

/** A wheel is not turned further in one go. */
const MOST_CLICKS = 200

/**
 * Somebody who does a task by what the screen says, and counts: a press is a tap on a key, a link, a tab or a choice, a list that is
 * opened and its row that is chosen (two), or a field that is tapped to be typed in. What is typed into it is not counted.
 */
class Person {
  presses = 0
  readonly page: Page
  constructor(page: Page) {
    this.page = page
  }

  private async tap(what: Locator) {
    this.presses += 1
    await what.click()
  }
  press = (name: string | RegExp) =>
    this.tap(this.page.getByRole('button', { name, exact: typeof name === 'string' }))
  link = (name: string | RegExp) => this.tap(this.page.getByRole('link', { name }).first())
  tab = (name: string | RegExp) => this.tap(this.page.getByRole('tab', { name }))
  pick = (name: string | RegExp) =>
    this.tap(this.page.getByRole('radio', { name, exact: typeof name === 'string' }))
  /** A step, from the row of them. */
  step = (name: string) =>
    this.tap(
      this.page
        .getByRole('navigation', { name: 'Steps of this setup' })
        .getByRole('link', { name: new RegExp(`^${name}`) }),
    )
  /** Looks at what came, before the next press. */
  look = () => this.page.waitForTimeout(SETTLE_MS)
  /** A wheel that is turned click by click, each seen at the machine before the next, until something is seen: one press. */
  turn = async (name: string, shows: Locator, until: () => Promise<boolean>) => {
    this.presses += 1
    for (let clicks = 0; clicks < MOST_CLICKS && !(await until()); clicks++) {
      const before = (await shows.textContent()) ?? ''
      await this.page.getByRole('button', { name, exact: true }).click()
      await expect(shows).not.toHaveText(before)
    }
    expect(await until(), `${name} until it is seen`).toBe(true)
  }
  type = async (label: string | RegExp, text: string, nth = 0) => {
    this.presses += 1
    await this.page
      .getByLabel(label, { exact: typeof label === 'string' })
      .nth(nth)
      .fill(text)
  }
  choose = async (label: string | RegExp, option: string) => {
    this.presses += 2
    await this.page
      .getByLabel(label, { exact: typeof label === 'string' })
      .first()
      .selectOption({ label: option })
  }

  /** The foot of the page: what is next of all. */
  private foot = () => this.page.locator('p[role="status"]').last()
  /** What is next must be this, and nothing else. */
  isNext = async (says: string | RegExp) => {
    const sentence = this.foot().locator('a, button, span.font-semibold').filter({ hasText: says }).first()
    await expect(sentence, `the foot says ${says}`).toBeVisible()
    return sentence
  }
  /** What is next here, once what is next of all is done elsewhere. */
  isNextHere = (says: string) =>
    expect(this.foot(), `the foot says ${says}`).toContainText(`After that, here: ${says}`)
  /** Goes where what is next is done, where that is not here. */
  follow = async (says: string | RegExp) => {
    const sentence = await this.isNext(says)
    const way = await sentence.evaluate((element) => element.tagName !== 'SPAN')
    if (way) await this.tap(sentence)
  }

  /** Every line of the walk-round, one after the other. */
  walkRound = async () => {
    const lines = this.page.getByRole('button', { name: /^Tick: / })
    await expect(lines.first()).toBeVisible()
    for (let left = await lines.count(); left > 0; left -= 1) {
      await this.tap(lines.first())
      await expect(lines).toHaveCount(left - 1)
    }
  }
  /** Records the proof that is shown, having looked at it. */
  recordProof = async (by: string) => {
    await this.look()
    await this.press('Record the proof')
    await expect(this.page.getByText(`Proved by ${by}`)).toBeVisible()
  }
  /** The edge finder against one face. */
  edge = async (axis: 'X' | 'Y', way: '+' | '-', position: string) => {
    if ((await this.page.getByLabel('Found with').inputValue()) !== 'edge-finder')
      await this.choose('Found with', 'edge finder')
    await this.pick(new RegExp(`^${axis}[${way === '-' ? '−-' : '+'}]$`))
    const tip = this.page.getByLabel('Finder tip, diameter')
    if ((await tip.inputValue()) === '') await this.type('Finder tip, diameter', '.2')
    await this.type('Machine position', position)
    await this.press(`Record ${axis} of G54`)
  }
  download = async () => {
    const coming = this.page.waitForEvent('download')
    await this.press(/^Download/)
    return coming
  }
}
