import { describeProfile, firstMachine, firstTools, usualTravels } from '@dogleg/core/begin'
import { BUILT_IN_PROFILES } from '@dogleg/core/control'
import { newPin } from '@dogleg/core/people'
import { readLength } from '@dogleg/core/quantity'
import { useMutation } from '@tanstack/react-query'
import { ArrowLeft, ArrowRight } from 'lucide-react'
import { type ReactNode, useId, useState } from 'react'
import { useSearchParams } from 'react-router'
import { z } from 'zod'
import { api } from '../log/api.ts'
import { newId } from '../log/clock.ts'
import { useKept } from '../log/kept.ts'
import { operator, setOperator } from '../log/operator.ts'
import { useSigned } from '../log/operator-gate.tsx'
import { PinField } from '../people/pin-field.tsx'
import { Button } from '../ui/button.tsx'
import { Choice } from '../ui/choice.tsx'
import { LengthEntryField, nextFieldOnEnter, TextEntry } from '../ui/entry-field.tsx'
import { ownShopThere } from './own-shop-there.ts'

const PAGES = ['machine', 'unit', 'control', 'tools', 'lead'] as const
type PageName = (typeof PAGES)[number]

const draftSchema = z.object({
  name: z.string().nullable(),
  kind: z.enum(['mill', 'lathe']),
  unit: z.enum(['inch', 'mm']),
  /** As typed; null as long as the usual one stands. */
  travels: z.object({ X: z.string().nullable(), Y: z.string().nullable(), Z: z.string().nullable() }),
  profileId: z.string(),
  /** Numbers of the first tools that are not there. */
  without: z.array(z.number()),
  /** Who leads the shop, by initials and name. A PIN is kept in no storage. */
  lead: z.object({ initials: z.string(), name: z.string() }).default({ initials: '', name: '' }),
})
type Draft = z.infer<typeof draftSchema>

const START: Draft = {
  name: null,
  kind: 'mill',
  unit: 'inch',
  travels: { X: null, Y: null, Z: null },
  profileId: BUILT_IN_PROFILES[0]?.id ?? '',
  without: [],
  lead: { initials: '', name: '' },
}

const nameOf = ({ name, kind }: Draft) => name ?? (kind === 'mill' ? 'Mill 1' : 'Lathe 1')
const axesOf = ({ kind }: Draft) => (kind === 'mill' ? (['X', 'Y', 'Z'] as const) : (['X', 'Z'] as const))
const travelOf = ({ travels, kind, unit }: Draft, axis: 'X' | 'Y' | 'Z') =>
  travels[axis] ?? String(usualTravels(kind, unit)[axis])

/** What is wrong with a travel, in a sentence. */
function wrongTravel(draft: Draft, axis: 'X' | 'Y' | 'Z'): string | undefined {
  const read = readLength(travelOf(draft, axis), draft.unit)
  if (!read.ok) return read.says
  return read.value > 0 ? undefined : 'A travel is more than zero.'
}

/** What a page still lacks, in a sentence: it is not left before. */
const lacks: Record<PageName, (draft: Draft, pin: string) => string | undefined> = {
  machine: (draft) => (nameOf(draft).trim() === '' ? 'Give the machine a name.' : undefined),
  unit: (draft) =>
    axesOf(draft)
      .map((axis) => wrongTravel(draft, axis))
      .find((says) => says !== undefined),
  control: () => undefined,
  tools: () => undefined,
  lead: ({ lead }, pin) => {
    const typed = [lead.initials, lead.name, pin].filter((text) => text.trim() !== '').length
    if (typed === 0) return undefined
    if (typed < 3) return 'Initials, name and PIN belong together: type all three, or none.'
    return newPin.safeParse(pin).error?.issues[0]?.message
  },
}

function rowsOf(draft: Draft) {
  const number = (axis: 'X' | 'Y' | 'Z') => {
    const read = readLength(travelOf(draft, axis), draft.unit)
    return read.ok ? read.value : usualTravels(draft.kind, draft.unit)[axis]
  }
  const machine = firstMachine(newId().toLowerCase(), {
    name: nameOf(draft).trim(),
    kind: draft.kind,
    unit: draft.unit,
    travels: { X: number('X'), Y: draft.kind === 'mill' ? number('Y') : null, Z: number('Z') },
    profileId: draft.profileId,
  })
  const tools = firstTools(machine, () => newId().toLowerCase())
  return { machines: [machine], tools: tools.filter((tool) => !draft.without.includes(tool.number)) }
}

/** An own shop, set up on five short pages; each has what is usual, to be kept or typed over. */
export function OwnShopPage() {
  const [draft, change, clear] = useKept('own-shop', draftSchema, () => START)
  const [pin, setPin] = useState('')
  const [params, setParams] = useSearchParams()
  const at = PAGES.find((page) => page === params.get('page')) ?? 'machine'
  const n = PAGES.indexOf(at)
  const signed = useSigned()
  const wrong = lacks[at](draft, pin)
  const make = useMutation({
    networkMode: 'always',
    mutationFn: async () => {
      const lead = pin === '' ? undefined : { ...draft.lead, pin }
      if (lead) setOperator(lead.initials.trim())
      await api.setUpShop({
        ...rowsOf(draft),
        ...(operator() ? { by: operator() } : {}),
        ...(lead ? { lead } : {}),
      })
      await ownShopThere()
    },
    onSuccess: () => {
      clear()
      // A page of its own from the beginning: nothing of the demo is remembered.
      window.location.assign('/')
    },
  })
  const to = (page: PageName | undefined) => page && setParams({ page })
  const next = PAGES[n + 1]
  return (
    <form
      className="mx-auto flex w-full max-w-3xl flex-1 flex-col gap-4 py-4"
      onKeyDown={nextFieldOnEnter}
      onSubmit={(event) => {
        event.preventDefault()
        if (wrong !== undefined) return
        if (next) to(next)
        else if (pin !== '') make.mutate()
        else signed(() => make.mutate())
      }}
    >
      <p className="text-ink-soft">
        Your own shop, page {n + 1} of {PAGES.length}
      </p>
      <Page key={at} at={at} draft={draft} change={change} pin={pin} onPin={setPin} />
      {make.error && (
        <p role="alert" className="border-2 border-ink p-3 font-semibold">
          {make.error.message}
        </p>
      )}
      {wrong !== undefined && <p role="status">{wrong}</p>}
      <div className="mt-auto flex gap-3 border-t border-rule pt-3">
        {n > 0 && (
          <Button className="min-h-14 text-lg" onClick={() => to(PAGES[n - 1])}>
            <ArrowLeft aria-hidden size={22} /> Back
          </Button>
        )}
        <Button
          type="submit"
          look="primary"
          data-record
          className="ml-auto min-h-14 text-lg"
          disabled={wrong !== undefined || make.isPending || make.isSuccess}
        >
          {next ? 'Next' : make.isPending || make.isSuccess ? 'Setting up…' : 'Open the shop'}
          <ArrowRight aria-hidden size={22} />
        </Button>
      </div>
    </form>
  )
}

interface PageProps {
  draft: Draft
  change: (draft: Draft) => void
  pin: string
  onPin: (pin: string) => void
}

function Page({ at, ...props }: PageProps & { at: PageName }) {
  switch (at) {
    case 'machine':
      return <MachineOfShop {...props} />
    case 'unit':
      return <UnitOfShop {...props} />
    case 'control':
      return <ControlOfShop {...props} />
    case 'tools':
      return <ToolsOfShop {...props} />
    case 'lead':
      return <LeadOfShop {...props} />
  }
}

const Title = ({ children }: { children: ReactNode }) => (
  <h1 className="text-3xl font-semibold">{children}</h1>
)

function MachineOfShop({ draft, change }: PageProps) {
  return (
    <>
      <Title>Which machine comes first?</Title>
      <Choice
        label="It is a"
        value={draft.kind}
        onChange={(kind) => change({ ...draft, kind, travels: START.travels, without: [] })}
        options={[
          { value: 'mill', label: 'mill' },
          { value: 'lathe', label: 'lathe' },
        ]}
      />
      <TextEntry
        words
        label="What it is called in the shop"
        value={nameOf(draft)}
        maxLength={40}
        onChange={(name) => change({ ...draft, name })}
      />
      <p className="text-ink-soft">Further machines are added on the page of the machines.</p>
    </>
  )
}

function UnitOfShop({ draft, change }: PageProps) {
  return (
    <>
      <Title>In which unit does {nameOf(draft)} show positions, and how far does it go?</Title>
      <Choice
        label="The display is in"
        value={draft.unit}
        onChange={(unit) => change({ ...draft, unit, travels: START.travels, without: [] })}
        options={[
          { value: 'inch', label: 'inch' },
          { value: 'mm', label: 'mm' },
        ]}
      />
      <div className="grid gap-x-4 sm:grid-cols-3">
        {axesOf(draft).map((axis) => (
          <LengthEntryField
            key={axis}
            label={draft.kind === 'lathe' && axis === 'X' ? 'Travel in X, in diameters' : `Travel in ${axis}`}
            unit={draft.unit}
            value={travelOf(draft, axis)}
            onChange={(text) => change({ ...draft, travels: { ...draft.travels, [axis]: text } })}
          />
        ))}
      </div>
      <p className="text-ink-soft">
        These are usual sizes: yours stand on the machine’s plate or in its manual. Home counts as 0 and the
        travel lies below it, as on most machines; the machine’s page takes anything else. Positions outside
        of it are refused.
      </p>
    </>
  )
}

function ControlOfShop({ draft, change }: PageProps) {
  return (
    <fieldset className="space-y-2">
      <legend className="mb-3">
        <Title>Which of these does its control read?</Title>
      </legend>
      {BUILT_IN_PROFILES.map((profile) => (
        <label
          key={profile.id}
          className={`flex items-center gap-4 rounded-sm border p-3 ${draft.profileId === profile.id ? 'border-2 border-ink bg-stock-shade' : 'border-ink-soft'}`}
        >
          <input
            type="radio"
            name="profile"
            className="size-6 shrink-0 accent-ink"
            checked={draft.profileId === profile.id}
            onChange={() => change({ ...draft, profileId: profile.id })}
          />
          <span className="min-w-0 flex-1">
            <span className="text-xl font-semibold">{profile.name}</span>
            <span className="grid gap-x-6 sm:grid-cols-2">
              {describeProfile(profile, draft.unit).map(({ of, is }) => (
                <span key={of}>
                  <span className="text-ink-soft">{of}: </span>
                  <span className="font-mono">{is}</span>
                </span>
              ))}
            </span>
          </span>
        </label>
      ))}
      <p className="text-ink-soft">
        Compare with a program that runs on it. Each is changed to the last detail on the page of the
        profiles; its manual comes first.
      </p>
    </fieldset>
  )
}

function ToolsOfShop({ draft, change }: PageProps) {
  const id = useId()
  const all = firstTools({ id: 'first', kind: draft.kind, unit: draft.unit }, String)
  return (
    <fieldset className="space-y-1" aria-describedby={id}>
      <legend className="mb-3">
        <Title>Which of these tools are in it?</Title>
      </legend>
      {all.map(({ number, name }) => (
        <label key={number} className="flex min-h-13 items-center gap-4 border-b border-rule text-xl">
          <input
            type="checkbox"
            className="size-6 shrink-0 accent-ink"
            checked={!draft.without.includes(number)}
            onChange={({ target }) =>
              change({
                ...draft,
                without: target.checked
                  ? draft.without.filter((each) => each !== number)
                  : [...draft.without, number],
              })
            }
          />
          <span className="digits w-12 font-semibold">T{number}</span>
          {name}
        </label>
      ))}
      <p id={id} className="text-ink-soft">
        They come with usual sizes, not with measured ones: numbers, shapes and further tools are on the page
        of the tools. Lengths are measured in a setup.
      </p>
    </fieldset>
  )
}

function LeadOfShop({ draft, change, pin, onPin }: PageProps) {
  const { lead } = draft
  const typed = (part: Partial<Draft['lead']>) => change({ ...draft, lead: { ...lead, ...part } })
  return (
    <>
      <Title>Who leads this shop?</Title>
      <div className="grid gap-x-4 sm:grid-cols-[10rem_1fr_14rem]">
        <TextEntry
          words
          label="Initials"
          value={lead.initials}
          maxLength={8}
          onChange={(initials) => typed({ initials })}
        />
        <TextEntry words label="Name" value={lead.name} maxLength={60} onChange={(name) => typed({ name })} />
        <PinField label="PIN, 4 to 8 digits" value={pin} onChange={onPin} />
      </div>
      <p>
        With tablets on a network people sign in by their initials and a PIN, and a lead lets tablets in and
        looks after machines and tools.
      </p>
      <p className="text-ink-soft">
        At one PC nobody signs in: leave it empty, and name people when tablets are to come, on the page
        People and tablets. A PIN that was forgotten is set anew at the server’s own keyboard.
      </p>
    </>
  )
}
