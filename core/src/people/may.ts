// What people may do, without their schemas: the first screen needs no more.

/** What people of a shop may do, from the least to the most: each may what those before it may. */
export const MAY = ['looker', 'operator', 'lead'] as const
export type May = (typeof MAY)[number]

/** What each may do, in words for the page and the command. */
export const SAYS_MAY: Readonly<Record<May, string>> = {
  looker: 'reads only: a screen on the wall',
  operator: 'records, and strikes out what is their own',
  lead: 'also keeps machines, profiles, tools, people and backups, and strikes out anybody’s entries',
}

/** Whether somebody who may do this may do that as well. */
export const mayAlso = (is: May, wanted: May) => MAY.indexOf(is) >= MAY.indexOf(wanted)

/** Initials that are the same for whoever reads them: capitals do not matter. */
export const sameInitials = (a: string, b: string) => a.trim().toUpperCase() === b.trim().toUpperCase()

/** Whether somebody may strike out an entry: their own, or anybody's where they lead. */
export const mayStrike = (who: { initials: string; may: May }, entry: { by: string }) =>
  who.may === 'lead' || (who.may === 'operator' && sameInitials(who.initials, entry.by))
