import type { Verdict } from '@dogleg/core/fact'
import type { ProofFact } from '@dogleg/core/setup'
import { CheckCheck, Hourglass } from 'lucide-react'
import { useSyncExternalStore } from 'react'
import { Button } from '../ui/button.tsx'
import { Progress } from '../ui/progress.tsx'
import { VerdictMark } from '../ui/verdict.tsx'
import { When } from '../ui/when.tsx'
import type { Proving, ShareDone } from './use-prover.ts'

interface ProofStatusProps {
  now: Proving
  share: ShareDone
  onStop: () => void
  onProve: () => void
  verdict: Verdict | undefined
  counts: { stop: number; look: number } | undefined
  /** The proof that the log has of this program, and what stands against it. */
  fact: ProofFact | undefined
  against: string | undefined
}

/** How far proving is, what it came to, and whether the log has a proof that still holds. */
export function ProofStatus({
  now,
  share,
  onStop,
  onProve,
  verdict,
  counts,
  fact,
  against,
}: ProofStatusProps) {
  return (
    <>
      {now.state === 'proving' && (
        <span className="flex flex-1 items-center gap-3">
          <ShareBar share={share} />
          <Button onClick={onStop}>Stop</Button>
        </span>
      )}
      {now.state === 'stopped' && (
        <span className="flex items-center gap-3 font-semibold">
          Stopped. <Button onClick={onProve}>Prove it</Button>
        </span>
      )}
      {now.state === 'failed' && (
        <span className="font-semibold">
          {now.says} <Button onClick={onProve}>Prove it</Button>
        </span>
      )}
      {now.state === 'done' && verdict && (
        <span className="flex items-center gap-3">
          <VerdictMark verdict={verdict} />
          <span>
            {counts?.stop ? `${counts.stop} ${counts.stop === 1 ? 'stop' : 'stops'}` : ''}
            {counts?.stop && counts.look ? ', ' : ''}
            {counts?.look ? `${counts.look} to look at` : ''}
          </span>
        </span>
      )}
      {fact && (
        <span className={`flex items-center gap-2 ${against ? 'hatched px-2' : ''}`}>
          {against ? (
            <Hourglass aria-hidden size={18} />
          ) : fact.entry.verdict === 'stop' ? null : (
            <CheckCheck aria-hidden size={18} />
          )}
          {against
            ? `Stale: ${against}`
            : fact.entry.verdict === 'stop'
              ? `Not proved: recorded with a stop by ${fact.entry.by}, `
              : `Proved by ${fact.entry.by}${fact.entry.blockDelete ? ' with block delete on' : ''}, `}
          {!against && <When at={fact.entry.at} />}
        </span>
      )}
    </>
  )
}

function ShareBar({ share }: { share: ShareDone }) {
  const done = useSyncExternalStore(share.subscribe, share.get)
  return <Progress share={done} label="Proving" className="w-40" />
}
