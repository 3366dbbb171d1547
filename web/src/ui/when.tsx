import { format, isSameDay, isSameYear } from 'date-fns'
import { now } from '../log/clock.ts'

/** A moment as a person at the machine says it: the time today (to the minute, unless asked finer), the weekday and date before that. */
export function sayWhen(at: string, time = 'HH:mm'): string {
  const moment = new Date(at)
  if (Number.isNaN(moment.getTime())) return ''
  if (isSameDay(moment, now())) return format(moment, time)
  return format(moment, isSameYear(moment, now()) ? 'EEE d MMM, HH:mm' : 'd MMM yyyy, HH:mm')
}

export function When({ at }: { at: string }) {
  return (
    <time dateTime={at} className="whitespace-nowrap">
      {sayWhen(at)}
    </time>
  )
}
