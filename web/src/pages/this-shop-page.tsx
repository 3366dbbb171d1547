import { HardDriveDownload, Square, Users } from 'lucide-react'
import { useId } from 'react'
import { Link } from 'react-router'
import type { ShopState } from '../log/api.ts'
import { useLeads } from '../log/session.ts'
import { useBackup, useShop } from '../log/use-shop.ts'
import { Button } from '../ui/button.tsx'
import { When } from '../ui/when.tsx'

type Backups = ShopState['backups']

const WHY: Record<Backups['made'][number]['why'], string> = {
  night: 'made by itself',
  'before-update': 'made before Dogleg was changed',
  asked: 'asked for',
}
/** Backups that are named one by one at first. */
const SHOWN = 8

const size = (bytes: number) =>
  bytes >= 1e9
    ? `${(bytes / 1e9).toFixed(1)} GB`
    : `${Math.max(0.1, bytes / 1e6).toFixed(bytes < 1e7 ? 1 : 0)} MB`

/** The shop's logbook as a whole: whether there is a good backup of it, where it lies, what is left of the disk. */
export function ThisShopPage() {
  const { data: shop, error } = useShop()
  if (!shop)
    return error ? (
      <p role="alert" className="my-4 border-2 border-ink p-3 font-semibold">
        {error.message}
      </p>
    ) : (
      <p className="py-10 text-lg">Asking the server…</p>
    )
  return (
    <div className="grid content-start gap-x-10 gap-y-5 py-3 lg:grid-cols-[1fr_26rem]">
      <div className="flex flex-wrap items-end justify-between gap-x-6 border-b-2 border-ink pb-1 lg:col-span-2">
        <h1 className="text-2xl font-semibold">This shop</h1>
        <Link
          to="/this-tablet"
          className="ml-auto inline-flex min-h-11 items-center font-semibold underline underline-offset-4"
        >
          This tablet
        </Link>
        <Link
          to="/people"
          className="inline-flex min-h-11 items-center gap-2 font-semibold underline underline-offset-4"
        >
          <Users aria-hidden size={20} /> People and tablets
        </Link>
      </div>
      {[...(shop.alarm ? [shop.alarm] : []), ...shop.warnings].map((says) => (
        <p key={says} role="alert" className="border-2 border-ink p-3 font-semibold lg:col-span-2">
          {says}
        </p>
      ))}
      <BackupsSection backups={shop.backups} />
      <LogbookSection shop={shop} />
    </div>
  )
}

function BackupsSection({ backups }: { backups: Backups }) {
  const { made, folder, days, months, running, failed } = backups
  const { mutate, isPending, error } = useBackup()
  const title = useId()
  const leads = useLeads()
  const [last] = made
  return (
    <section aria-labelledby={title} className="space-y-3">
      <h2 id={title} className="text-lg font-semibold">
        Backups
      </h2>
      <p className="text-3xl leading-tight font-semibold" role="status">
        {running ? (
          'A backup is being made…'
        ) : last ? (
          <>
            Last backup <When at={last.at} />
          </>
        ) : (
          'There is no backup yet.'
        )}
      </p>
      {last && !running && (
        <p className="text-ink-soft">
          {size(last.bytes)}, {WHY[last.why]}. It was opened, and every log in it held against the logbook.
        </p>
      )}
      {failed && (
        <p className="border-l-4 border-ink pl-3">
          <span className="font-semibold">The last try failed, </span>
          <When at={failed.at} />: {failed.says}
        </p>
      )}
      {error && (
        <p role="alert" className="border-2 border-ink p-3 font-semibold">
          {error.message}
        </p>
      )}
      {!leads ? (
        <p>A lead of the shop makes one by hand.</p>
      ) : running ? (
        <Button className="min-h-14 text-lg" disabled={isPending} onClick={() => mutate('stop')}>
          <Square aria-hidden size={20} /> Stop it
        </Button>
      ) : (
        <Button
          look="primary"
          className="min-h-14 text-lg"
          disabled={isPending}
          onClick={() => mutate('make')}
        >
          <HardDriveDownload aria-hidden size={22} /> Make a backup now
        </Button>
      )}
      <p className="max-w-prose">
        {days > 0
          ? `One is made each night by itself. The last ${days} days have one each, and the last ${months} months.`
          : 'None is made by itself: DOGLEG_BACKUP_DAYS is 0.'}{' '}
        They lie on the server in <span className="font-mono break-all">{folder}</span>. A disk that fails
        takes them with it: copy one to another disk now and then.
      </p>
      {made.length > 0 && (
        <ul className="border-t border-rule">
          {made.slice(0, SHOWN).map((each) => (
            <Line key={each.name} made={each} />
          ))}
        </ul>
      )}
      {made.length > SHOWN && (
        <details>
          <summary className="min-h-11 content-center font-semibold">and {made.length - SHOWN} older</summary>
          <ul>
            {made.slice(SHOWN).map((each) => (
              <Line key={each.name} made={each} />
            ))}
          </ul>
        </details>
      )}
    </section>
  )
}

const Line = ({ made: { name, at, bytes, why } }: { made: Backups['made'][number] }) => (
  <li className="flex flex-wrap items-baseline gap-x-4 border-b border-rule py-1.5">
    <span className="font-mono text-sm break-all">{name}</span>
    <span className="ml-auto text-ink-soft">{WHY[why]}</span>
    <span className="digits w-20 text-right">{size(bytes)}</span>
    <span className="w-36 text-right">
      <When at={at} />
    </span>
  </li>
)

function LogbookSection({ shop: { file, entries, bytes, free, backups } }: { shop: ShopState }) {
  const title = useId()
  const command = 'block rounded-sm bg-stock-shade px-2 py-1 font-mono text-sm break-all'
  const example = `${backups.folder}/${backups.made[0]?.name ?? 'FILE.sqlite'}`
  return (
    <section aria-labelledby={title} className="space-y-3">
      <h2 id={title} className="text-lg font-semibold">
        The logbook
      </h2>
      <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-1">
        <dt className="text-ink-soft">Entries</dt>
        <dd className="digits">{entries}</dd>
        <dt className="text-ink-soft">Size</dt>
        <dd className="digits">{size(bytes)}</dd>
        {free !== undefined && (
          <>
            <dt className="text-ink-soft">Left of its disk</dt>
            <dd className="digits">{size(free)}</dd>
          </>
        )}
        <dt className="text-ink-soft">File</dt>
        <dd className="font-mono text-sm break-all">{file}</dd>
      </dl>
      <h3 className="pt-2 font-semibold">At the server’s own keyboard</h3>
      <p>To put a backup in its place, stop Dogleg first:</p>
      <code className={command}>npm run restore {example}</code>
      <p>To make a backup onto another disk, at any time:</p>
      <code className={command}>npm run backup /mnt/usb/shop.sqlite</code>
      <p>To look through the whole logbook, every entry of it:</p>
      <code className={command}>npm run verify</code>
      <p>To take all of it out in open form:</p>
      <code className={command}>npm run export shop.jsonl</code>
    </section>
  )
}
