import type { ReactNode } from 'react'
import { useLeads } from '../log/session.ts'

/** What only a lead of the shop does; for others, in its place, who does it. */
export function LeadsOnly({ does, children }: { does: string; children: ReactNode }) {
  return useLeads() ? children : <span className="text-ink-soft">A lead of the shop {does}.</span>
}
