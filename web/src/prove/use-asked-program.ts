import { isProved, textOnPallet } from '@dogleg/core/setup'
import { useEffect, useState } from 'react'
import { useLocation, useSearchParams } from 'react-router'
import { useWritten } from '../code/use-written.ts'
import { useOpenSetup } from '../log/open-setup.ts'
import { isQuiet } from '../traveler/address.ts'
import { isKept, noteHanded, type OpenProgram } from './use-program.ts'

/**
 * The program of a setup that goes by a name, as its proof is asked for: as a pallet runs it, as Code writes it now, as it stands at
 * the control, or as it was proved before; of these the first that is not proved.
 */
function useByName(title: string | undefined) {
  const { setup, reference } = useOpenSetup()
  const coded = setup.code.coded.find(({ entry }) => entry.sheet.title === title)?.entry
  const { written, busy } = useWritten(setup, coded?.sheet, coded?.offset ?? 'G54', reference)
  const texts = [
    ...(title === undefined ? [] : [textOnPallet(setup, title)]),
    ...(written?.code && !busy ? [written.code.text] : []),
    ...(title === undefined ? [] : [setup.code.taken.get(title)?.entry.text]),
    ...setup.prove.proofs.filter(({ entry }) => entry.title === title).map(({ entry }) => entry.text),
  ].filter((text) => text !== undefined)
  return {
    busy,
    text: texts.find((text) => !isProved(setup.prove, text)) ?? texts[0],
    /** Why Code does not write it as things stand. */
    against: coded && !busy && !written?.code ? (written?.findings[0]?.says ?? '') : undefined,
  }
}

interface AskedProgram {
  /** The text of it, once it is written. */
  text: string | undefined
  /** Opens a program of the setup by its name. */
  open: (title: string) => void
  /** What is about to take the place of a text that stands in Prove and nowhere else, and the name of that one. */
  replacing: { next: OpenProgram & { text: string }; standing: string } | undefined
  replace: (yes: boolean) => void
}

/**
 * Opens in Prove what the address asks for (`?program=Bracket`): a program of the setup by its name. A text that stands in Prove
 * and nowhere else is not lost without a question; one that Code does not write says why.
 * @param asks the name of the program whose proof is next
 * @param standing the program that is open: undefined while it is looked up
 */
export function useAskedProgram(
  asks: string | undefined,
  standing: OpenProgram | null | undefined,
  openText: (next: OpenProgram & { text: string }) => void,
  tell: (says: string) => void,
): AskedProgram {
  const { setup } = useOpenSetup()
  const [search, setSearch] = useSearchParams()
  const { state } = useLocation()
  const named = search.get('program') ?? undefined
  const title = named ?? asks
  const { text, busy, against } = useByName(title)
  const [replacing, setReplacing] = useState<AskedProgram['replacing']>()
  const put = (next: OpenProgram & { text: string }) => {
    // It is written again whenever it is asked for.
    noteHanded(setup.id, next.text).catch(() => undefined)
    openText(next)
  }
  // biome-ignore lint/correctness/useExhaustiveDependencies: once for each name that the address asks for
  useEffect(() => {
    if (named === undefined || busy || standing === undefined) return
    setSearch(
      (params) => {
        params.delete('program')
        return params
      },
      { replace: true },
    )
    if (text === undefined) {
      tell(
        against
          ? `${named} is not written as things stand: ${against} Look at it in Code.`
          : `No text of ${named} is kept here: open its file.`,
      )
      return
    }
    if (standing?.text === text) return
    const next = { title: named, text }
    const quiet = isQuiet(state)
    const known = setup.prove.proofs.flatMap(({ entry }) => (entry.text === undefined ? [] : [entry.text]))
    void isKept(setup.id, [text, ...known]).then((other) =>
      !other ? put(next) : quiet ? undefined : setReplacing({ next, standing: other }),
    )
  }, [named, busy, standing === undefined])
  return {
    text,
    open: (program) =>
      setSearch(
        (params) => {
          params.set('program', program)
          return params
        },
        { replace: true },
      ),
    replacing,
    replace: (yes) => {
      if (yes && replacing) put(replacing.next)
      setReplacing(undefined)
    },
  }
}
