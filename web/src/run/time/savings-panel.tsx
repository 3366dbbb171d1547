import { LONGEST_PROGRAM } from '@dogleg/core/log'
import { formatDuration } from '@dogleg/core/quantity'
import { LONGEST_LOOKED } from '@dogleg/core/saving'
import { cyclesAShift, savedSoFar } from '@dogleg/core/setup'
import { type ShopRates, savedTime } from '@dogleg/core/timing'
import { Eye, type LucideIcon, ShieldAlert, ShieldCheck } from 'lucide-react'
import { useState } from 'react'
import { z } from 'zod'
import { useKept } from '../../log/kept.ts'
import { useOpenSetup } from '../../log/open-setup.ts'
import { useSigned } from '../../log/operator-gate.tsx'
import { record } from '../../log/record.ts'
import { TextDifference } from '../../prove/difference.tsx'
import { isKept, keepProgram } from '../../prove/use-program.ts'
import { Button, ButtonLink } from '../../ui/button.tsx'
import { Dialog } from '../../ui/dialog.tsx'
import { Duration } from '../../ui/duration.tsx'
import { Progress } from '../../ui/progress.tsx'
import { SmallField } from '../../ui/small-field.tsx'
import { EndedLine } from '../../ui/worker-ended.tsx'
import { money } from '../money.ts'
import { ProgramBar } from './program-bar.tsx'
import { type HashedOffer, useRunProgram, useSavings } from './use-run-program.ts'

const RISKS: Record<HashedOffer['risk'], { word: string; Icon: LucideIcon }> = {
  none: { word: 'no risk', Icon: ShieldCheck },
  little: { word: 'little risk', Icon: Eye },
  some: { word: 'some risk', Icon: ShieldAlert },
}

/** What would save time in a program: each change with what it is worth, looked at before it is taken, and kept with before and after. */
export function SavingsPanel() {
  const { setup } = useOpenSetup()
  const run = useRunProgram()
  const { program, question, programs } = run
  const { costs } = setup.machine
  const signed = useSigned()
  const savings = useSavings(question)
  const [parts, setParts] = useKept(`${setup.id}.cycles-a-shift`, z.string().max(8), () =>
    String(cyclesAShift(setup) ?? ''),
  )
  const [looking, setLooking] = useState<HashedOffer>()
  const [inTheWay, setInTheWay] = useState<{ name: string; go: () => void }>()
  const partsAShift = Number(parts) > 0 ? Number(parts) : null
  const rates: ShopRates = {
    partsAShift,
    shiftsAMonth: costs?.shiftsAMonth ?? null,
    anHour: costs?.anHour ?? null,
  }
  const found = savings.answer
  const { saved } = setup.run
  const taken = saved.filter(({ title }) => title === program?.title)
  const isProved = setup.prove.proofs.some(
    ({ entry, freshness }) => entry.text === program?.text && freshness.state === 'fresh',
  )
  const all = found?.offers.reduce((sum, { seconds }) => sum + seconds, 0) ?? 0

  const take = (offer: HashedOffer) =>
    signed(() => {
      if (!program || !found) return
      record(setup.id, {
        kind: 'saved',
        title: program.title.slice(0, 80),
        code: offer.code,
        line: offer.line,
        says: offer.says.slice(0, 300),
        before: { hash: found.hash, seconds: found.before },
        after: { hash: offer.hash, seconds: found.before - offer.seconds },
        verdict: offer.verdict,
        text: offer.after,
      })
      setLooking(undefined)
    })
  const toProve = async () => {
    if (!program) return
    const go = () => void keepProgram(setup.id, { title: program.title, text: program.text })
    const name = await isKept(
      setup.id,
      programs.map(({ text }) => text),
    )
    if (name === undefined) go()
    else setInTheWay({ name, go })
  }
  if (!program)
    return <p className="py-6 text-lg">No program of this setup is in its logbook yet: prove one first.</p>
  const tooLong = program.text.length > LONGEST_LOOKED
  return (
    <div className="flex flex-1 flex-col gap-2 py-2">
      <ProgramBar run={run}>
        {run.time.answer && (
          <p>
            <span className="block text-sm text-ink-soft">a cycle now</span>
            <Duration seconds={run.time.answer.total} className="text-3xl font-semibold" />
          </p>
        )}
        {found && (
          <p>
            <span className="block text-sm text-ink-soft">all of it, at most</span>
            <Duration seconds={-Math.min(all, found.before)} className="text-3xl font-semibold" />
          </p>
        )}
        <SmallField label="Cycles a shift" id="cycles-a-shift" className="w-28">
          <input
            id="cycles-a-shift"
            value={parts}
            maxLength={6}
            inputMode="numeric"
            onChange={({ target }) => setParts(target.value)}
            className="digits h-12 w-full rounded-sm border border-ink-soft bg-white/60 px-2 text-xl"
          />
        </SmallField>
      </ProgramBar>
      <div className="grid flex-1 content-start gap-x-6 gap-y-3 lg:grid-cols-[1fr_21rem]">
        <section aria-label="What would save time" className="min-w-0">
          {savings.share !== undefined && (
            <p className="flex items-center gap-3 py-2" role="status">
              <Progress share={savings.share} label="Looking for time" className="w-48" /> Each change is
              proved before it is offered. <Button onClick={savings.stop}>Stop</Button>
            </p>
          )}
          {savings.failed && (
            <p className="py-2">
              <EndedLine
                ended={savings.failed}
                broke="Looking broke off."
                again={savings.again}
                tryAgain="Look again"
              />
            </p>
          )}
          {savings.stopped && (
            <p className="py-2">
              Stopped. <Button onClick={savings.again}>Look again</Button>
            </p>
          )}
          {tooLong && (
            <p className="py-2 font-semibold">
              Longer than 300,000 characters: changes are not looked for, each would be proved in full.
            </p>
          )}
          {found && !found.placed && (
            <p className="py-2 font-semibold">
              No part is placed in the work area: levels, air and order of holes are not looked at. Place it
              in Prove.
            </p>
          )}
          {found && found.offers.length === 0 && (
            <p className="py-3 text-lg">Nothing is found that would save time and that Prove allows.</p>
          )}
          {setup.run.pallets && found && found.offers.length > 0 && (
            <p className="pb-1">
              On pallets a shorter cycle brings something only where the machine does not wait for hands: see
              Pallets, over a shift.
            </p>
          )}
          <ul>
            {found?.offers.map((offer) => (
              <Offer
                key={`${offer.code}-${offer.line}`}
                offer={offer}
                rates={rates}
                onLook={() => setLooking(offer)}
              />
            ))}
          </ul>
          {found && found.refused > 0 && (
            <p className="border-t border-rule py-2 text-ink-soft">
              {found.refused} more {found.refused === 1 ? 'change was' : 'changes were'} looked at: Prove
              speaks against {found.refused === 1 ? 'it' : 'them'}, or nothing is saved.
            </p>
          )}
        </section>
        <section aria-label="Taken so far" className="space-y-2">
          <h2 className="font-semibold">Taken so far in this program</h2>
          {taken.length === 0 && <p className="text-ink-soft">Nothing yet.</p>}
          <ol>
            {taken.map(({ id, says, before, after, by }) => (
              <li key={id} className="border-t border-rule py-1">
                <span className="block">{says}</span>
                <span className="digits">
                  {formatDuration(before.seconds)} → <b>{formatDuration(after.seconds)}</b>
                </span>{' '}
                <span className="text-ink-soft">{by}</span>
              </li>
            ))}
          </ol>
          {taken.length > 0 && (
            <p className="border-t-2 border-ink pt-1 font-semibold">
              in all <Duration seconds={-savedSoFar(taken)} className="text-2xl" /> a part
            </p>
          )}
          {!isProved && (
            <div className="space-y-2">
              <p>The text as it is here has no proof: step through it, and record the proof.</p>
              <ButtonLink to="../prove" relative="path" look="primary" onClick={() => void toProve()}>
                Prove it again
              </ButtonLink>
            </div>
          )}
        </section>
      </div>
      {looking && (
        <TextDifference
          title={looking.says}
          text={program.text}
          after={looking.after}
          takes={looking.after.length > LONGEST_PROGRAM ? 'Too long to be kept' : 'Take this change'}
          onTake={() => looking.after.length <= LONGEST_PROGRAM && take(looking)}
          onClose={() => setLooking(undefined)}
        />
      )}
      {inTheWay && (
        <Dialog
          open
          onOpenChange={() => setInTheWay(undefined)}
          title={`${inTheWay.name} stands in Prove`}
          says="It was changed there and is in no logbook: it would go."
        >
          <div className="flex gap-3">
            <Button
              look="primary"
              onClick={() => {
                inTheWay.go()
                setInTheWay(undefined)
              }}
            >
              Put this one in its place
            </Button>
            <Button onClick={() => setInTheWay(undefined)}>Leave it</Button>
          </div>
        </Dialog>
      )}
    </div>
  )
}

function Offer({ offer, rates, onLook }: { offer: HashedOffer; rates: ShopRates; onLook: () => void }) {
  const { word, Icon } = RISKS[offer.risk]
  const { perMonth, moneyAMonth } = savedTime(offer.seconds, rates)
  return (
    <li className="grid items-center gap-x-4 gap-y-1 border-t border-rule py-1.5 md:grid-cols-[6.5rem_1fr_auto_auto]">
      <p>
        <Duration seconds={-offer.seconds} className="text-2xl font-semibold" />
        <span className="block text-sm text-ink-soft">line {offer.line}</span>
      </p>
      <div className="min-w-0">
        <p className="leading-snug font-semibold">{offer.says}</p>
        <p className="text-sm leading-snug">
          {offer.why}{' '}
          <span className="inline-flex items-center gap-1 font-semibold">
            <Icon aria-hidden size={16} /> {word}.
          </span>{' '}
          {offer.mind}
        </p>
      </div>
      <p className="text-right">
        {perMonth !== null && <span className="digits block">{(perMonth / 3600).toFixed(1)} h a month</span>}
        {moneyAMonth !== null && (
          <span className="digits block font-semibold">{money.format(moneyAMonth)} a month</span>
        )}
      </p>
      <Button onClick={onLook}>Look…</Button>
    </li>
  )
}
