import type { Severity } from '@dogleg/core/fact'
import { type Coverage, coverageSays, type Mending, type ProgramFinding } from '@dogleg/core/prove'
import type { EntryOf } from '@dogleg/core/setup'
import { BookOpen, CheckCheck, Eye, FastForward, Info, type LucideIcon, OctagonX, Wrench } from 'lucide-react'
import { useSettled } from '../log/settled.ts'
import { Button, ButtonLink } from '../ui/button.tsx'
import { When } from '../ui/when.tsx'

const LOOKS: Record<Severity, { Icon: LucideIcon; look: string; word: string }> = {
  stop: { Icon: OctagonX, look: 'text-hazard', word: 'Stop' },
  look: { Icon: Eye, look: 'text-ink', word: 'Check this' },
  note: { Icon: Info, look: 'text-ink-soft', word: 'Note' },
}

/** Findings of a reader that went no further: it can be asked to. */
const STOPPED: ReadonlySet<string> = new Set(['too-much', 'no-end'])

/** Shown at once; a program that is wrong everywhere is mended from the top. */
const SHOWN = 60

/** Everything that is said of the program, worst first: a press goes to its line and its picture. */
export function FindingsPanel({
  findings,
  chosen,
  onChoose,
  onMend,
  onFurther,
  standing,
  onLetStand,
  profileId,
  coverage,
}: {
  findings: readonly ProgramFinding[]
  chosen: ProgramFinding | undefined
  onChoose: (finding: ProgramFinding) => void
  /** Undefined where the text cannot be changed here. */
  onMend: ((mending: Mending) => void) | undefined
  /** Reads a program further that was stopped because it takes too much work. */
  onFurther: () => void
  /** Who let a finding stand, if anybody. */
  standing: (finding: ProgramFinding) => EntryOf<'let-stand'> | undefined
  /** Says that the one that is open was looked at and stands; undefined where nothing is known of the text yet. */
  onLetStand: ((finding: ProgramFinding) => void) | undefined
  /** The profile whose page can say what a code is. */
  profileId: string
  /** How the program was read; undefined where something stops its proof. */
  coverage: Coverage | undefined
}) {
  const read = coverage && (
    <p className="py-1 text-ink-soft first-letter:uppercase">{coverageSays(coverage)}.</p>
  )
  if (findings.length === 0)
    return (
      <>
        <p className="py-3 text-lg">Nothing is said of this program for this setup.</p>
        {read}
      </>
    )
  return (
    <>
      {read}
      <ul aria-label="Findings" className="space-y-1">
        {findings.slice(0, SHOWN).map((finding) => {
          const { severity, code, line, says, why, fix, mending, more, own } = finding
          const { Icon, look, word } = LOOKS[severity]
          return (
            <li
              key={`${code}-${line}-${says}`}
              className={`flex flex-wrap items-start gap-x-3 border-t border-rule py-1 ${finding === chosen ? 'bg-stock-shade' : ''}`}
            >
              <button
                type="button"
                onClick={() => onChoose(finding)}
                className="flex min-h-11 min-w-0 flex-1 gap-2 text-left hover:bg-stock-shade"
              >
                <Icon aria-label={word} size={22} className={`mt-0.5 shrink-0 ${look}`} />
                <span className="digits w-20 shrink-0 font-semibold">line {line}</span>
                <span className="min-w-0">
                  <span className="block font-semibold">
                    {says}
                    {more ? ` And ${more} more.` : ''}
                  </span>
                  <span className="block text-ink-soft">
                    {why} {fix}
                  </span>
                </span>
              </button>
              <Stands
                by={severity === 'look' ? standing(finding) : undefined}
                onLetStand={
                  severity === 'look' && finding === chosen && onLetStand
                    ? () => onLetStand(finding)
                    : undefined
                }
              />
              {STOPPED.has(code) && (
                <Button onClick={onFurther} className="shrink-0">
                  <FastForward aria-hidden size={18} /> Read ten times as far
                </Button>
              )}
              {own && (
                <ButtonLink to={`/profiles/${profileId}`} state={{ own }} className="shrink-0">
                  <BookOpen aria-hidden size={18} /> Say what {own} is
                </ButtonLink>
              )}
              {mending && onMend && (
                <Button onClick={() => onMend(mending)} className="shrink-0">
                  <Wrench aria-hidden size={18} /> Mend…
                </Button>
              )}
            </li>
          )
        })}
        {findings.length > SHOWN && <li className="py-2">and {findings.length - SHOWN} more</li>}
      </ul>
    </>
  )
}

/** Who let it stand, and when; or the key that says so, once it is open. */
function Stands({
  by,
  onLetStand,
}: {
  by: EntryOf<'let-stand'> | undefined
  onLetStand: (() => void) | undefined
}) {
  if (by)
    return (
      <span className="flex min-h-11 shrink-0 items-center gap-1.5">
        <CheckCheck aria-hidden size={18} /> let stand by {by.by}, <When at={by.at} />
      </span>
    )
  return onLetStand ? <LetStandKey onLetStand={onLetStand} /> : null
}

/** Not for a hand that tapped the line twice. */
function LetStandKey({ onLetStand }: { onLetStand: () => void }) {
  const settled = useSettled()
  return (
    <Button className="shrink-0" disabled={!settled} onClick={onLetStand}>
      I looked, let it stand
    </Button>
  )
}
