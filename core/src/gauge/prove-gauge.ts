import { type Verdict, verdictOf, worstFirst } from '../fact/index.ts'
import { type ProgramFinding, type ProveCase, programFinding, prove } from '../prove/index.ts'
import type { GaugeCase } from './case.ts'
import { type TriedCase, tryCases } from './cases.ts'
import { partWith } from './part-with.ts'
import type { GaugePlan } from './plan.ts'
import { standInOf } from './stand-in.ts'
import type { WrittenGauge } from './write.ts'

/** What a gauging program was shown to do. */
export interface GaugeProof {
  cases: TriedCase[]
  findings: ProgramFinding[]
  verdict: Verdict
  cancelled: boolean
}

/** Share of the work that proving the text is. */
const PROVE_SHARE = 0.3
/** Cases that failed are told one by one up to this many. */
const TOLD = 6

/** What a gauging program is there to do is no finding: it writes wear and offsets. */
const MEANT: ReadonlySet<string> = new Set(['loads-offset', 'offset-not-followed', 'main-loops'])

const caseName = ({ kind, key }: TriedCase) => (key ? `${key}, ${kind}` : kind)

/** Cases that did not come out as the plan says. */
function ofCases(cases: readonly TriedCase[]): ProgramFinding[] {
  const failed = cases.filter(({ wrong }) => wrong.length > 0)
  const found = failed
    .slice(0, TOLD)
    .map((each) =>
      programFinding(
        'stop',
        each.next && Math.abs(each.next.after) > Math.abs(each.next.before)
          ? 'corrected-wrong-way'
          : 'case-fails',
        each.tried.alarm?.line ?? 1,
        `Tried with ${caseName(each)}: ${each.wrong[0]}`,
        'The program was run against a part like this.',
        { fix: 'Write the program anew from the plan, or mend the line.' },
      ),
    )
  if (failed.length > TOLD)
    found.push(
      programFinding(
        'stop',
        'more-cases-fail',
        1,
        failed.length === TOLD + 1
          ? 'One more case does not come out as the plan says.'
          : `${failed.length - TOLD} more cases do not come out as the plan says.`,
        'They are in the table.',
      ),
    )
  return found
}

/**
 * Shows what a gauging program does, as it stands: proves it in its setup (paths, modes, probing) and runs it against every kind
 * of part. `onProgress` is told the share done, and stops the work by giving false.
 */
export function proveGauge(
  plan: GaugePlan,
  written: Pick<WrittenGauge, 'arranged' | 'variables'>,
  where: GaugeCase,
  of: ProveCase,
  onProgress: (share: number) => boolean = () => true,
): GaugeProof {
  let going = true
  const progress = (from: number, to: number) => (share: number) => {
    going = onProgress(from + (to - from) * share)
    return going
  }
  // A good part: the path is proved to its end, whatever the nominal sizes are.
  const { unit, shape } = where
  const good = standInOf(plan.features, { unit, stylus: shape.stylus }, partWith(plan, new Map(), unit))
  const proof = prove(of, progress(0, PROVE_SHARE), good)
  const cases = going ? tryCases(of.text, plan, written, where, progress(PROVE_SHARE, 1)) : []
  const findings = worstFirst([
    ...ofCases(cases),
    ...proof.findings.filter(({ code }) => !MEANT.has(code)),
  ]) as ProgramFinding[]
  return { cases, findings, verdict: verdictOf(findings), cancelled: !going }
}
