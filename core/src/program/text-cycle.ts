import { lackingIn, layText, poseAt, type TextPose, textStrokes } from '../lettering/index.ts'
import { type Block, has, lengthOf, target, wordValue } from './block.ts'
import { FLAG, ROW } from './motion.ts'
import { takeOnWord } from './on-word.ts'
import { notWhileScaled } from './scaled.ts'

/** The text of the block: what stands in its first parentheses, as it stands there. */
const textOf = ({ index, run }: Block) => /\(([^)]*)\)/.exec(index.lineText(run.lineIndex))?.[1] ?? ''

/** Each run of # becomes the serial number that comes next, which then counts on. */
function withSerial(block: Block, text: string): string {
  const { run } = block
  return text.replace(/#+/g, (digits) => String(run.serial++).padStart(digits.length, '0'))
}

/**
 * The control's own text cycle: letters in a row from X Y, at I degrees, J tall; Z deep from the R plane, F along and E
 * down. It ends over the lower right of the last letter. The letters are the reader's own, as wide as the profile says that
 * the control's come out (trade.md 7).
 */
export function textCycle(block: Block, code: number): void {
  const { run } = block
  const { lettering } = run.options.profile.reading
  takeOnWord(run, `G${code}`, 'letters')
  const said = textOf(block)
  const text = wordValue(run, 'P') === 1 ? withSerial(block, said) : said
  notWhileScaled(run, `G${code}`)
  const [x, y, z] = target(run, { machine: false })
  const height = lengthOf(run, 'J') ?? 0
  const plane = lengthOf(run, 'R')
  if (plane === undefined || !has(run, 'Z') || height <= 0) {
    run.wrong('cycle-words', 'stop', `G${code} needs J, R and Z.`, {
      does: 'The control stops with an alarm.',
    })
    return
  }
  const lacking = lackingIn(text)
  if (text.trim() === '')
    run.wrong('text-empty', 'look', `G${code} without a text.`, { does: 'Nothing is engraved.' })
  if (lacking.length > 0)
    run.wrong('text-character', 'look', `There is no letter for ${lacking.join(' ')}.`, {
      does: 'It is left out in the picture; the control may stop with an alarm.',
    })
  run.wrong(
    'text-outline',
    'note',
    lettering.widthFactor === null
      ? `G${code} is shown in letters of another shape, and how wide the control's are has not been measured.`
      : `G${code} is shown in letters of another shape, as wide as was measured.`,
    { once: 'all' },
  )
  const pose: TextPose = {
    x,
    y,
    angle: wordValue(run, 'I') ?? 0,
    height,
    stretch: lettering.widthFactor ?? 1,
  }
  const down = (wordValue(run, 'E') ?? 0) * run.scale || run.feed
  const rapid = (px: number, py: number, pz: number) => {
    if (px !== run.wx || py !== run.wy || pz !== run.wz) run.go(ROW.RAPID, px, py, pz, FLAG.CYCLE)
  }
  for (const [first, ...rest] of textStrokes(text, pose)) {
    if (!first) continue
    rapid(first[0], first[1], run.wz)
    rapid(first[0], first[1], plane)
    run.go(ROW.LINE, first[0], first[1], z, FLAG.CYCLE, -1, down)
    for (const point of rest) run.go(ROW.LINE, point[0], point[1], z, FLAG.CYCLE)
    rapid(run.wx, run.wy, plane)
  }
  const [ex, ey] = poseAt(pose, layText(text).width, 0)
  rapid(ex, ey, run.wz)
}
