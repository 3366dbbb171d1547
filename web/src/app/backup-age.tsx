import { HardDrive } from 'lucide-react'
import { useEffect, useState } from 'react'
import { Link } from 'react-router'
import { useShop } from '../log/use-shop.ts'
import { whenIdle } from '../ui/lazy-part.tsx'
import { When } from '../ui/when.tsx'

/** How old the last good backup is, on every page, and the way to the shop's own. */
export function BackupAge() {
  // The first screen does without.
  const [idle, setIdle] = useState(false)
  useEffect(() => whenIdle(async () => setIdle(true)), [])
  const { data } = useShop({ enabled: idle })
  const [last] = data?.backups.made ?? []
  return (
    <Link
      to="/this-shop"
      className="-mt-4 inline-flex min-h-11 shrink-0 items-end gap-1.5 self-end px-2 pb-1 text-ink underline underline-offset-4"
    >
      <HardDrive aria-hidden size={16} className="mb-0.5" />
      {last ? (
        <span>
          Last backup <When at={last.at} />
        </span>
      ) : data ? (
        'No backup yet'
      ) : (
        'Backups'
      )}
    </Link>
  )
}
