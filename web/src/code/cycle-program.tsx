import {
  type CycleName,
  type CycleSheet,
  cyclesOf,
  draftOfSheet,
  type ItemDraft,
  newItem,
  readItem,
  readSheet,
  type SheetDraft,
} from '@dogleg/core/code'
import { type Finding, verdictOf, worstFirst } from '@dogleg/core/fact'
import { againstNumber, codedOffset, codeRests, codeTools, type NumberedProgram } from '@dogleg/core/prepare'
import { type FieldProblems, formatShort } from '@dogleg/core/quantity'
import { againstSerials, inForce, seriesIn } from '@dogleg/core/setup'
import type { InHand } from '@dogleg/core/traveler'
import { memo, type SyntheticEvent, useMemo, useState } from 'react'
import { useNavigate } from 'react-router'
import { newId } from '../log/clock.ts'
import { useOffset, useOpenSetup } from '../log/open-setup.ts'
import { useSigned } from '../log/operator-gate.tsx'
import { type NewEntry, record, restates } from '../log/record.ts'
import { useNumbers } from '../log/use-numbers.ts'
import { GoesStale } from '../logbook/goes-stale.tsx'
import { Taken, TakeProgram } from '../program/take-program.tsx'
import { isKept, keepProgram } from '../prove/use-program.ts'
import { NextBar } from '../traveler/next-bar.tsx'
import { Button } from '../ui/button.tsx'
import { Dialog } from '../ui/dialog.tsx'
import { FactLine } from '../ui/fact-line.tsx'
import { VerdictMark } from '../ui/verdict.tsx'
import { CodePanel } from './code-panel.tsx'
import { CycleEditor } from './cycle-editor.tsx'
import { CycleList } from './cycle-list.tsx'
import { ProgramBar } from './program-bar.tsx'
import { MaterialProvider } from './use-material.ts'
import type { ProgramChanges, Programs } from './use-sheets.ts'
import { useWritten } from './use-written.ts'

type Items = SheetDraft['items']

/** The cycles that are complete, as a program; for what can be shown before all is. */
function readable(
  draft: SheetDraft,
  unit: 'inch' | 'mm',
): { sheet: CycleSheet | undefined; incomplete: string[]; says?: string } {
  const incomplete = draft.items.flatMap((item) => (readItem(item, unit).ok || item.off ? [] : [item.id]))
  const read = readSheet({ ...draft, items: draft.items.filter(({ id }) => !incomplete.includes(id)) }, unit)
  return read.ok ? { sheet: read.sheet, incomplete } : { sheet: undefined, incomplete, says: read.says }
}

interface CycleProgramProps {
  programs: Programs
  changes: ProgramChanges
  /** Programs that are known to stand at the machine. */
  known: readonly NumberedProgram[]
  /** Whether `programs` is what stands typed; while it is not, nothing is given out or recorded. */
  isSettled: () => boolean
  /** Has it follow at once: a key is about to be pressed. */
  onSettle: () => void
}

/** The programs of a setup, one of them in hand: its cycles, its code, what is said of it. Drawn again once what is typed has been drawn. */
export const CycleProgram = memo(function CycleProgram({
  programs,
  changes,
  known,
  isSettled,
  onSettle,
}: CycleProgramProps) {
  const { setup, reference } = useOpenSetup()
  const { sheets, at, sheet: draft } = programs
  const { choose, change, add, take, remove } = changes
  const { unit, machine, profile } = setup
  const lathe = machine.kind === 'lathe'
  const [offset, chooseOffset] = useOffset(setup)
  const signed = useSigned()
  const navigate = useNavigate()
  const [chosen, setChosen] = useState<string>()
  const [lit, setLit] = useState<string>()
  const [pointed, setPointed] = useState<string>()
  const [replacing, setReplacing] = useState<string>()

  const item = draft.items.find(({ id }) => id === chosen) ?? draft.items[0]
  const offsetName = lathe ? 'G54' : offset.name
  const live = useMemo(() => readable(draft, unit), [draft, unit])
  const { sheet, incomplete } = live
  const { written, busy, failed, again } = useWritten(setup, sheet, offsetName, reference)
  const code = written?.code
  const { entries: numbers } = useNumbers(sheet ? seriesIn(sheet) : [])
  const serials = useMemo(() => (sheet ? againstSerials(sheet, numbers) : []), [sheet, numbers])
  const shared = useMemo(
    () => againstNumber(Number(draft.number), draft.title.trim(), known, machine.name),
    [draft.number, draft.title, known, machine.name],
  )
  const complete = incomplete.length === 0 && sheet !== undefined
  const title = draft.title.trim()
  const twin = sheets.some((each, index) => index !== at && each.title.trim() === title)
  // A number that was given out is not written again; what stands here can be read all the same.
  const given = complete && !busy && !twin && verdictOf(serials) !== 'stop' ? code : undefined

  const entry = useMemo<NewEntry | undefined>(() => {
    const material = reference.materials.find(({ id }) => id === sheet?.material)
    if (!sheet || !complete || !material) return undefined
    const name = codedOffset(setup, sheet, offsetName)
    return {
      kind: 'coded',
      offset: name,
      sheet,
      rests: codeRests(setup, sheet, name),
      profile: { id: profile.id, version: profile.version },
      machine: { id: machine.id, version: machine.version },
      material: { id: material.id, version: material.version },
      tools: codeTools(setup, sheet, reference.tools),
    }
  }, [sheet, complete, setup, offsetName, profile, machine, reference])
  const fact = setup.code.coded.find(({ entry: of }) => of.sheet.title === draft.title.trim())
  const same = fact !== undefined && entry !== undefined && restates(fact.entry, entry)
  const elsewhere = setup.code.coded
    .filter(({ entry: of }) => !sheets.some((each) => each.title.trim() === of.sheet.title))
    .map(({ entry: of }) => draftOfSheet(of.sheet))
  const keep = (): string | undefined => {
    if (!entry || !given) return undefined
    return same && fact ? fact.entry.id : record(setup.id, entry).id
  }

  // Who presses a key takes what is typed, however short a time ago that was.
  const settle = ({ target }: SyntheticEvent) => {
    if (target instanceof Element && target.closest('button, a')) onSettle()
  }
  // A press that nothing came before finds what stood there before, and takes none of it.
  const onlySettled = (event: SyntheticEvent) => {
    if (isSettled()) return
    event.preventDefault()
    event.stopPropagation()
    onSettle()
  }
  const setItems = (next: (items: Items) => Items) => change((of) => ({ ...of, items: next(of.items) }))
  const replace = (id: string, next: (item: ItemDraft) => ItemDraft) =>
    setItems((items) => items.map((each) => (each.id === id ? next(each) : each)))
  const addItem = (cycle: CycleName) => {
    const next = newItem(cycle, newId().toLowerCase(), unit, lathe)
    setItems((items) => [...items, next])
    setChosen(next.id)
  }
  const move = (id: string, by: -1 | 1) =>
    setItems((items) => {
      const from = items.findIndex((each) => each.id === id)
      const taken = items[from]
      return taken ? items.toSpliced(from, 1).toSpliced(from + by, 0, taken) : items
    })
  const copy = (id: string) => {
    const copied = newId().toLowerCase()
    setItems((items) => items.flatMap((each) => (each.id === id ? [each, { ...each, id: copied }] : [each])))
    setChosen(copied)
  }

  const toProve = async (text: string) => {
    await keepProgram(setup.id, { title, text })
    await navigate(`../prove${location.search}`, { relative: 'path' })
  }
  const proveIt = () =>
    signed(async () => {
      if (!given || !isSettled()) return
      keep()
      // A text that stands in Prove and nowhere else is not lost without a question.
      const others = setup.prove.proofs.flatMap(({ entry: of }) => (of.text === undefined ? [] : [of.text]))
      const standing = await isKept(setup.id, [given.text, ...others])
      if (standing) setReplacing(standing)
      else await toProve(given.text)
    })

  const ofItem = written?.items.find(({ id }) => id === item?.id)
  const on = draft.items.filter(({ off }) => !off).length
  const ofProgram: Finding[] = [
    ...serials,
    ...shared,
    // A cycle that lacks something is not written yet, and is there all the same.
    ...(written?.findings ?? []).filter(({ code }) => code !== 'no-cycles' || on === 0),
  ]
  const findings: Finding[] = worstFirst([...ofProgram, ...(ofItem?.findings ?? [])])
  const all = [...ofProgram, ...(written?.items.flatMap((each) => each.findings) ?? [])]
  const verdict = given ? verdictOf(all) : 'stop'
  const inHand = useMemo<InHand | undefined>(
    () =>
      busy ? undefined : { code: { title, on, incomplete: incomplete.length, verdict, recorded: same } },
    [busy, title, on, incomplete.length, verdict, same],
  )
  const problems: FieldProblems = useMemo(() => {
    const read = item && readItem(item, unit)
    return read && !read.ok ? read.problems : {}
  }, [item, unit])

  return (
    <section
      aria-label="Code"
      className="flex flex-1 flex-col"
      onPointerDownCapture={settle}
      onFocusCapture={settle}
    >
      <ProgramBar
        setup={setup}
        materials={inForce(reference, 'materials', sheet?.material)}
        sheets={sheets}
        at={at}
        elsewhere={elsewhere}
        offset={offset}
        canRemove={draft.items.length === 0 || same}
        onChoose={(next) => {
          choose(next)
          setChosen(undefined)
        }}
        onOpen={(next) => {
          take(next)
          setChosen(undefined)
        }}
        onAdd={add}
        onRemove={remove}
        onChange={(fields) => change((of) => ({ ...of, ...fields }))}
        onOffset={chooseOffset}
      >
        <span className="ml-auto flex items-center gap-3">
          {given && <span className="digits text-2xl font-semibold">{formatShort(given.seconds)}</span>}
          {written && incomplete.length === 0 && <VerdictMark verdict={verdictOf(all)} />}
          <Button look="primary" className="h-12" disabled={!given} onClick={proveIt}>
            Prove it
          </Button>
        </span>
      </ProgramBar>

      <div className="grid flex-1 content-start gap-x-4 gap-y-2 border-t border-rule py-1 md:grid-cols-[20rem_1fr] lg:grid-cols-[13rem_20rem_1fr] lg:grid-rows-[auto_1fr]">
        <div className="md:col-span-2 lg:col-span-1 lg:row-span-2">
          <CycleList
            items={draft.items}
            written={written?.items ?? []}
            incomplete={incomplete}
            chosen={item?.id}
            cycles={cyclesOf(machine.kind)}
            onChoose={setChosen}
            onAdd={addItem}
            onMove={move}
            onCopy={copy}
            onOff={(id, off) => replace(id, (each) => ({ ...each, off }))}
            onRemove={(id) => setItems((items) => items.filter((each) => each.id !== id))}
          />
        </div>
        {item ? (
          <MaterialProvider value={draft.material}>
            <CycleEditor
              key={item.id}
              item={item}
              problems={problems}
              lit={pointed ?? lit}
              onLit={(field) => {
                setLit(field)
                setPointed(undefined)
              }}
              onChange={(next) => replace(item.id, next)}
              draft={draft}
              onPartsAShift={(partsAShift) => change((of) => ({ ...of, partsAShift }))}
              ends={ofItem?.operations.at(-1)?.clear}
              after={(working) => (
                <CodePanel
                  profile={profile.name}
                  problems={problems}
                  findings={findings}
                  tells={[
                    ...(busy && !failed ? ['Writing a long program…'] : []),
                    ...(draft.material === '' ? ['Choose the material: the speeds come from it.'] : []),
                    ...(twin ? ['Another program here has this name. Give each its own.'] : []),
                  ]}
                  failed={failed}
                  onWriteAgain={again}
                  lines={code?.lines ?? []}
                  item={item.id}
                  otherwise={
                    item.off
                      ? 'The cycle is switched off.'
                      : Object.keys(problems).length > 0
                        ? 'The code appears here as you type.'
                        : failed
                          ? 'No code was written.'
                          : (live.says ?? 'Nothing is written while something says stop.')
                  }
                  working={working}
                  lit={pointed ?? lit}
                  onPoint={setPointed}
                  onPick={(field) => {
                    setLit(field)
                    setPointed(undefined)
                  }}
                />
              )}
            />
          </MaterialProvider>
        ) : (
          <p className="py-6 text-lg md:col-span-2">
            A program is built from cycles, in the order in which they run. Add the first one.
          </p>
        )}
      </div>

      <div
        className="flex flex-wrap items-center gap-x-4 gap-y-1 border-t border-rule py-0.5"
        onClickCapture={onlySettled}
      >
        <Button
          look={same ? 'plain' : 'primary'}
          disabled={!given || same}
          onClick={() => signed(() => void keep())}
        >
          Record the program
        </Button>
        {fact && <FactLine fact={fact} />}
        {fact && !same && given && <span className="text-ink-soft">What stands here differs from it.</span>}
        <span className="ml-auto flex flex-wrap items-center gap-3">
          {given && (
            <TakeProgram
              setup={setup}
              offset={offset}
              what="coded"
              title={title}
              rests={() => {
                const id = keep()
                return id ? [id] : []
              }}
              text={given.text}
            />
          )}
        </span>
      </div>
      <GoesStale entry={same || !given ? undefined : entry} />
      {setup.code.taken.has(title) && <Taken program={setup.code.taken.get(title)} text={given?.text} />}
      <NextBar
        step="code"
        inHand={inHand}
        isHere={({ about }) => about === undefined || about === title}
        way={({ step, about }) => {
          if (about === title) return step === 'prove' && given ? proveIt : undefined
          const other = step === 'code' ? sheets.findIndex((each) => each.title.trim() === about) : -1
          return other < 0
            ? undefined
            : () => {
                choose(other)
                setChosen(undefined)
              }
        }}
      />
      <Dialog
        open={replacing !== undefined}
        onOpenChange={(stays) => !stays && setReplacing(undefined)}
        title="Another program stands in Prove"
        says={`${replacing} has not been proved as it stands there, and is kept nowhere else.`}
      >
        <div className="flex flex-wrap gap-3">
          <Button look="primary" onClick={() => given && void toProve(given.text)}>
            Put {title} in its place
          </Button>
          <Button onClick={() => void navigate(`../prove${location.search}`, { relative: 'path' })}>
            Look at it first
          </Button>
        </div>
      </Dialog>
    </section>
  )
})
