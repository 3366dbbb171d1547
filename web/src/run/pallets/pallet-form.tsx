import { verdictOf } from '@dogleg/core/fact'
import { LONGEST_PROGRAM } from '@dogleg/core/log'
import { type PalletPlanDraft, programNumberOf, tableToKey } from '@dogleg/core/pallet'
import { Wrench } from 'lucide-react'
import { useId, useState } from 'react'
import { useOpenSetup } from '../../log/open-setup.ts'
import { useSigned } from '../../log/operator-gate.tsx'
import { TextDifference } from '../../prove/difference.tsx'
import { Button } from '../../ui/button.tsx'
import { Duration } from '../../ui/duration.tsx'
import { nextFieldOnEnter } from '../../ui/entry-field.tsx'
import { OpenFile } from '../../ui/open-file.tsx'
import { readFile } from '../../ui/read-file.ts'
import { saveFile } from '../../ui/save-file.ts'
import { Select } from '../../ui/select.tsx'
import { SmallField } from '../../ui/small-field.tsx'
import { useLatest } from '../../ui/use-latest.ts'
import { Findings, VerdictMark } from '../../ui/verdict.tsx'
import { EndedLine } from '../../ui/worker-ended.tsx'
import type { Pallets } from './use-pallets.ts'

type PalletDraft = PalletPlanDraft['pallets'][number]
type Field = keyof PalletDraft['draft']

const FIELDS: readonly [Field, string, string][] = [
  ['operation', 'What is done', 'w-38'],
  ['fixture', 'Fixture', 'w-32'],
  ['parts', 'Parts', 'w-12'],
  ['table', 'O in pallet table', 'w-26'],
  ['unload', 'Unload', 'w-20'],
  ['load', 'Load', 'w-20'],
  ['aside', 'Elsewhere', 'w-20'],
]

const INPUT = 'h-12 w-full rounded-sm border bg-white/60 px-2 text-lg'

/** What runs on each pallet, the programs read, and what is wrong with how they call each other. */
export function PalletForm({ pallets, onStart }: { pallets: Pallets; onStart: () => void }) {
  const { setup } = useOpenSetup()
  const { draft, change, problems, plan, reading, asked, programs } = pallets
  const signed = useSigned()
  const [mending, setMending] = useState<number>()
  const [told, setTold] = useState<string>()
  const mended = asked.answer?.mended.ok ? asked.answer.mended.mended : undefined
  const refused = asked.answer && !asked.answer.mended.ok ? asked.answer.mended.findings : []

  const set = (index: number, next: Partial<PalletDraft>) =>
    change({
      ...draft,
      pallets: draft.pallets.map((each, at) => (at === index ? { ...each, ...next } : each)),
    })
  const choose = (index: number, title: string, text: string) => {
    const number = programNumberOf(text)
    const own = draft.pallets[index] as PalletDraft
    set(index, {
      program: { title: title.slice(0, 80), text },
      ...(number !== undefined && own.draft.table.trim() === '' && !draft.main
        ? { draft: { ...own.draft, table: String(number) } }
        : {}),
    })
  }
  const chooseFile = useLatest(choose)
  const openFile = async (index: number, file: File | undefined) => {
    if (!file) return
    const read = await readFile(file)
    if (!read.ok) setTold(read.says)
    else if (read.text.length > LONGEST_PROGRAM)
      setTold(`${file.name} has more than 200,000 characters: it can’t be kept with the pallets.`)
    else {
      setTold(undefined)
      chooseFile(index, file.name, read.text)
    }
  }
  /** Takes the mended programs, one difference after the other; the main program with the last. */
  const takeMended = () => {
    if (!mended || mending === undefined) return
    if (mending < mended.texts.length) {
      setMending(mending + 1)
      return
    }
    change({
      ...draft,
      main: mended.main,
      pallets: draft.pallets.map((each, index) => ({
        draft: { ...each.draft, table: String(mended.main.number) },
        program: { ...each.program, text: mended.texts[index] as string },
      })),
    })
    setMending(undefined)
  }
  const findings = reading?.findings ?? []
  return (
    <form
      aria-label="What runs on each pallet"
      onKeyDown={nextFieldOnEnter}
      onSubmit={(event) => event.preventDefault()}
      className="flex flex-1 flex-col gap-3 py-2"
    >
      <div className="space-y-2">
        {draft.pallets.map((pallet, index) => (
          <PalletRow
            // biome-ignore lint/suspicious/noArrayIndexKey: a pallet is its number
            key={index}
            number={index + 1}
            pallet={pallet}
            problems={Object.fromEntries(
              Object.entries(problems).flatMap(([path, problem]) =>
                path.startsWith(`pallets.${index}.`) ? [[path.split('.')[2], problem]] : [],
              ),
            )}
            seconds={reading?.seconds[index]}
            programs={programs}
            onField={(field, value) => set(index, { draft: { ...pallet.draft, [field]: value } })}
            onChoose={(title, text) => choose(index, title, text)}
            onFile={(file) => void openFile(index, file)}
          />
        ))}
      </div>
      <ShiftFields
        shift={draft.shift}
        problems={problems}
        swap={setup.machine.pallets?.swap}
        onChange={(shift) => change({ ...draft, shift })}
      />
      {told && (
        <p role="status" className="font-semibold">
          {told}
        </p>
      )}
      <div className="grid gap-x-6 gap-y-3 lg:grid-cols-[1fr_24rem]">
        <div className="min-w-0 space-y-2">
          <div className="flex min-h-11 flex-wrap items-center gap-3">
            {reading && <VerdictMark verdict={verdictOf(findings)} />}
            {plan && !reading && !asked.failed && (
              <span className="text-ink-soft">Reading the programs…</span>
            )}
            {asked.failed && (
              <EndedLine
                ended={asked.failed}
                broke="Reading broke off."
                again={asked.again}
                tryAgain="Read again"
              />
            )}
            {!plan && <span>Fill in what is missing: then the programs are read.</span>}
            {reading?.repeats && findings.length === 0 && (
              <span>Each calls its pallet and the next; it goes on for ever.</span>
            )}
            {mended && (
              <Button look="primary" onClick={() => setMending(0)}>
                <Wrench aria-hidden size={18} /> Mend with a main program…
              </Button>
            )}
          </div>
          <Findings findings={[...findings, ...refused]} />
        </div>
        <div className="space-y-2">
          {plan && <KeyingTable plan={plan} />}
          <div className="flex flex-wrap gap-2">
            <Button
              look={pallets.recordable ? 'primary' : 'plain'}
              disabled={!pallets.recordable}
              onClick={() => signed(() => void pallets.record())}
            >
              Record the pallets
            </Button>
            {plan?.main && (
              <Button onClick={() => plan.main && saveFile(plan.main.text, `o${plan.main.number}.nc`)}>
                Save O{plan.main.number}
              </Button>
            )}
            {plan?.main &&
              plan.pallets.map(({ program }, index) => (
                <Button
                  // biome-ignore lint/suspicious/noArrayIndexKey: a pallet is its number
                  key={index}
                  onClick={() => saveFile(program.text, `o${programNumberOf(program.text) ?? index + 1}.nc`)}
                >
                  Save O{programNumberOf(program.text)}
                </Button>
              ))}
            {draft.main && (
              <Button look="quiet" onClick={() => change({ ...draft, main: null })}>
                Without the main program
              </Button>
            )}
          </div>
          {pallets.stands && setup.run.pallets?.freshness.state === 'fresh' && (
            <p>
              As it stands in the logbook.{' '}
              {setup.run.pallets.entry.verdict !== 'stop' && (
                <Button look="quiet" onClick={onStart}>
                  On to the check before the start
                </Button>
              )}
            </p>
          )}
        </div>
      </div>
      {mended && mending !== undefined && mending < mended.texts.length && (
        <TextDifference
          key={mending}
          title={`The program of pallet ${mending + 1}: it comes back to the main program`}
          text={draft.pallets[mending]?.program.text ?? ''}
          after={mended.texts[mending] as string}
          takes={`Good, on to the next (${mending + 1} of ${mended.texts.length + 1})`}
          onTake={takeMended}
          onClose={() => setMending(undefined)}
        />
      )}
      {mended && mending === mended.texts.length && (
        <TextDifference
          title={`The main program, O${mended.main.number}: start this one`}
          text=""
          after={mended.main.text}
          takes="Take all of them"
          onTake={takeMended}
          onClose={() => setMending(undefined)}
        />
      )}
    </form>
  )
}

interface PalletRowProps {
  number: number
  pallet: PalletDraft
  problems: Record<string, { says: string; empty: boolean }>
  seconds: number | undefined
  programs: Pallets['programs']
  onField: (field: Field, value: string | boolean) => void
  onChoose: (title: string, text: string) => void
  onFile: (file: File | undefined) => void
}

/** One pallet: what is done on it, its program, its times. */
function PalletRow({
  number,
  pallet,
  problems,
  seconds,
  programs,
  onField,
  onChoose,
  onFile,
}: PalletRowProps) {
  const ids = useId()
  const { draft, program } = pallet
  const known = programs.findIndex(({ title, text }) => title === program.title && text === program.text)
  const worst = Object.values(problems).find(({ empty }) => !empty)
  const own = programNumberOf(program.text)
  return (
    <fieldset aria-label={`Pallet ${number}`} className="border-t border-rule pt-1">
      <div className="flex flex-wrap items-end gap-x-2 gap-y-1">
        <p className="w-28 self-center leading-6 whitespace-nowrap">
          <span className="block text-xl font-semibold">
            Pallet <span className="digits text-2xl">{number}</span>
          </span>
          {seconds ? (
            <>
              cut <Duration seconds={seconds} className="font-semibold" />
            </>
          ) : null}
        </p>
        {FIELDS.slice(0, 3).map((field) => entry(field))}
        <div className="w-52">
          <label htmlFor={`${ids}-program`} className="text-sm text-ink-soft">
            Its program{own === undefined ? '' : `, O${own}`}
          </label>
          <Select
            id={`${ids}-program`}
            className="block w-full text-lg"
            value={program.text === '' ? '' : known >= 0 ? String(known) : 'own'}
            onChange={({ target }) => {
              const chosen = programs[Number(target.value)]
              if (target.value !== '' && chosen) onChoose(chosen.title, chosen.text)
            }}
          >
            <option value="">choose…</option>
            {program.text !== '' && known < 0 && <option value="own">{program.title}, as it is here</option>}
            {programs.map(({ title }, index) => (
              <option key={title} value={index}>
                {title}
              </option>
            ))}
          </Select>
        </div>
        <OpenFile
          says="File"
          label={`Open the program of pallet ${number}`}
          accept=".nc,.txt,.tap,.cnc,.ngc,text/plain"
          onFile={onFile}
        />
        {FIELDS.slice(3).map((field) => entry(field))}
        <label className="flex min-h-12 items-center gap-2">
          <input
            type="checkbox"
            checked={draft.finishes}
            onChange={({ target }) => onField('finishes', target.checked)}
            className="size-6 accent-ink"
          />
          finished
        </label>
      </div>
      {worst && <p className="pt-1 text-sm font-semibold">{worst.says}</p>}
    </fieldset>
  )

  function entry([field, label, width]: (typeof FIELDS)[number]) {
    const wrong = problems[field]
    return (
      <div key={field} className={width}>
        <label htmlFor={`${ids}-${field}`} className="block text-sm text-ink-soft">
          {label}
        </label>
        <input
          id={`${ids}-${field}`}
          data-entry
          value={String(draft[field])}
          maxLength={40}
          autoComplete="off"
          aria-invalid={wrong !== undefined}
          title={wrong?.says}
          onChange={({ target }) => onField(field, target.value)}
          className={`${INPUT} ${field === 'operation' || field === 'fixture' ? '' : 'digits'} ${wrong && !wrong.empty ? 'border-3 border-ink' : 'border-ink-soft'}`}
        />
      </div>
    )
  }
}

const SHIFT_FIELDS = [
  ['length', 'A shift lasts', 'w-28'],
  ['hands', 'People at the load station', 'w-44'],
  ['swap', 'One change takes', 'w-32'],
] as const

/** How long the shift is, who loads, and how long a change takes where it is not as the machine's page says. */
function ShiftFields({
  shift,
  problems,
  swap,
  onChange,
}: {
  shift: PalletPlanDraft['shift']
  problems: Pallets['problems']
  swap: number | undefined
  onChange: (shift: PalletPlanDraft['shift']) => void
}) {
  const ids = useId()
  return (
    <fieldset
      aria-label="The shift"
      className="flex flex-wrap items-end gap-x-3 gap-y-1 border-t border-rule pt-1"
    >
      {SHIFT_FIELDS.map(([field, label, width]) => {
        const wrong = problems[`shift.${field}`]
        return (
          <SmallField key={field} label={label} id={`${ids}-${field}`} className={width}>
            <input
              id={`${ids}-${field}`}
              data-entry
              value={shift[field]}
              maxLength={20}
              autoComplete="off"
              placeholder={field === 'swap' && swap !== undefined ? `${swap} s` : undefined}
              aria-invalid={wrong !== undefined}
              onChange={({ target }) => onChange({ ...shift, [field]: target.value })}
              className={`${INPUT} digits placeholder:text-ink-soft ${wrong && !wrong.empty ? 'border-3 border-ink' : 'border-ink-soft'}`}
            />
          </SmallField>
        )
      })}
      {SHIFT_FIELDS.map(([field]) => {
        const wrong = problems[`shift.${field}`]
        return wrong && !wrong.empty ? (
          <p key={field} className="pb-3 text-sm font-semibold">
            {wrong.says}
          </p>
        ) : null
      })}
    </fieldset>
  )
}

/** What is keyed into the control's pallet table, in order. */
function KeyingTable({ plan }: { plan: NonNullable<Pallets['plan']> }) {
  return (
    <table className="w-full">
      <caption className="text-left font-semibold">Key into the pallet table, in this order</caption>
      <tbody>
        {tableToKey(plan).map(({ pallet, program, says }) => (
          <tr key={pallet} className="border-t border-rule">
            <th scope="row" className="py-1 pr-3 text-left whitespace-nowrap">
              Pallet {pallet}
            </th>
            <td className="digits pr-3 text-2xl font-semibold">O{program}</td>
            <td className="text-sm text-ink-soft">{says}</td>
          </tr>
        ))}
      </tbody>
    </table>
  )
}
