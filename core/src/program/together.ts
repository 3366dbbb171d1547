import { LONGEST_NAME, NAMED_PROGRAM, programName } from './program-name.ts'

/** A file that was opened with others: its name, and what stands in it. */
export interface ProgramFile {
  name: string
  text: string
}

/** How much of a file is looked through for its own number: it stands at its head. */
const HEAD = 2_000
const OWN_NUMBER = /^[\s%]*(?:\([^)\n]*\)\s*)*(?:[Oo]|:)[ \t]*(\d{1,8})/
/** A line that calls another program, by its P or its name: M98, M198, G65, G66. */
const CALL = new RegExp(
  `^(?=[^\\n(;]*(?:M[ \\t]*1?98|G[ \\t]*6[56])(?!\\d))[^\\n(;]*?(?:P[ \\t]*(\\d{1,12})|<([^<>\\n]{1,${LONGEST_NAME}})>)`,
  'gim',
)

/** The O number of a file: the one it begins with, else the one that it is named after (O1234.NC, 1234.TXT). */
function numberOf({ name, text }: ProgramFile): number | undefined {
  const found = OWN_NUMBER.exec(text.slice(0, HEAD))?.[1] ?? /^O?(\d{1,8})(?:\.|$)/i.exec(name)?.[1]
  return found === undefined ? undefined : Number(found)
}

/** The programs that a text calls; of a number with how often before it, both. */
const callsOf = (text: string): (number | string)[] =>
  [...text.matchAll(CALL)].flatMap(([, p, name]): (number | string)[] =>
    name === undefined ? [Number(p), Number(p) % 10_000] : [programName(name)],
  )

/** The name of a file as a line calls it, without its ending: the one that it begins with, else its own. */
const nameOf = ({ name, text }: ProgramFile) =>
  programName(
    NAMED_PROGRAM.exec(text.slice(0, HEAD).replace(/^[\s%]+/, ''))?.[1] ?? name.replace(/\.[^.]*$/, ''),
  )

/** Without percent signs and empty lines before and after it. */
const bodyOf = (text: string) => text.replace(/\r\n?/g, '\n').replace(/^[\s%]+|[\s%]+$/g, '')

const named = (files: readonly ProgramFile[]) => files.map(({ name }) => name).join(', ')

/** A text under the head that it is called by, in place of its own. */
const under = (head: string, text: string) =>
  `${head}\n${text.replace(OWN_NUMBER, '').replace(NAMED_PROGRAM, '')}`

/** A file, by which number and name others can call it, and by which of them one does. */
interface Callable {
  file: ProgramFile
  number: number | undefined
  name: string
  byNumber: boolean
  byName: boolean
}

/**
 * Programs of several files as one text, as they lie together in a control's memory: first the one that none of the others calls, then the
 * others, each under its O number, which is that of its file's name where it has none of its own, or under the name that it is called by. Or
 * why they do not go together, with what to do.
 */
export function together(
  files: readonly ProgramFile[],
): { ok: true; name: string; text: string } | { ok: false; says: string } {
  const called = new Set(files.flatMap(({ text }) => callsOf(text)))
  const all = files.map((file): Callable => {
    const [number, name] = [numberOf(file), nameOf(file)]
    return {
      file,
      number,
      name,
      byNumber: number !== undefined && called.has(number),
      byName: called.has(name),
    }
  })
  const main = all.filter(({ byNumber, byName }) => !byNumber && !byName)
  const [first] = main
  if (!first || main.length > 1)
    return {
      ok: false,
      says: first
        ? `Which of these is the main program? None of the files calls ${named(main.map(({ file }) => file))}. Open the main program with those that it calls.`
        : `Which of these is the main program? Each is called by another: ${named(files)}.`,
    }
  const others = all.filter((each) => each !== first)
  const both = others.find(({ byNumber, byName }) => byNumber && byName)
  if (both)
    return {
      ok: false,
      says: `${both.file.name} is called by its number and by its name: call it one way, so that it lies here once.`,
    }
  const heads = [first, ...others].map(({ number, name, byName }) =>
    byName ? `O<${name}>` : number === undefined ? undefined : `O${number}`,
  )
  const twice = heads.find((head, at) => head !== undefined && heads.indexOf(head) < at)
  if (twice) return { ok: false, says: `${twice} stands in two of these files: open one of them only.` }
  const parts = others.map(({ file, number, name, byName }) => {
    const body = bodyOf(file.text)
    if (byName) return under(`O<${name}>`, body)
    return OWN_NUMBER.test(body.slice(0, HEAD)) ? body : `O${number}\n${body}`
  })
  return { ok: true, name: first.file.name, text: `${[bodyOf(first.file.text), ...parts].join('\n')}\n` }
}
