import { type Finding, finding } from '../fact/index.ts'
import type { Machine } from '../machine/index.ts'

/** The travels and the display step are those of today; the entry says which version it was taken on. */
export function editedNote(
  on: { version: number },
  where: string,
  { name, version }: Pick<Machine, 'name' | 'version'>,
): Finding[] {
  if (on.version === version) return []
  return [
    finding(
      'note',
      'machine-edited',
      where,
      `${name} has been edited since this was taken.`,
      `It was taken on version ${on.version}; the page of the machine is now at version ${version}.`,
    ),
  ]
}
