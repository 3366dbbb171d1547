import type { Standing } from '@dogleg/core/log'
import {
  type describeEntry,
  LOG_GROUP_NAMES,
  LOG_GROUPS,
  type Logged,
  type LogSearch,
  logCsv,
  type Setup,
} from '@dogleg/core/setup'
import { FileDown } from 'lucide-react'
import { useId } from 'react'
import { Button } from '../ui/button.tsx'
import { saveFile } from '../ui/save-file.ts'
import { Select } from '../ui/select.tsx'
import { SmallField } from '../ui/small-field.tsx'

const STANDINGS: readonly [Standing, string][] = [
  ['counts', 'what counts'],
  ['stale', 'stale'],
  ['superseded', 'taken again'],
  ['struck', 'struck out'],
]

interface LogSearchBarProps {
  setup: Setup
  search: LogSearch
  onSearch: (search: LogSearch) => void
  found: number
  describe: (entry: Logged) => ReturnType<typeof describeEntry>
}

/** Looks for entries of the logbook, and takes it away as a table or as it is. */
export function LogSearchBar({ setup, search, onSearch, found, describe }: LogSearchBarProps) {
  const id = useId()
  const people = [...new Set(setup.log.map(({ entry }) => entry.by))].sort()
  const set = (part: LogSearch) => onSearch({ ...search, ...part })
  const without = (key: keyof LogSearch) => {
    const { [key]: _, ...rest } = search
    return onSearch(rest)
  }
  const pick = <T extends string>(
    key: keyof LogSearch,
    label: string,
    all: string,
    options: readonly (readonly [T, string])[],
  ) => (
    <SmallField label={label} id={`${id}-${key}`}>
      <Select
        id={`${id}-${key}`}
        value={search[key] ?? ''}
        onChange={({ target }) =>
          target.value === '' ? without(key) : set({ [key]: target.value } as LogSearch)
        }
        className="text-lg"
      >
        <option value="">{all}</option>
        {options.map(([value, says]) => (
          <option key={value} value={value}>
            {says}
          </option>
        ))}
      </Select>
    </SmallField>
  )
  const name = setup.opened.title.toLowerCase().replace(/[^a-z0-9]+/g, '-')
  const narrowed = Object.values(search).some((part) => part !== undefined && part !== '')
  return (
    <div className="flex flex-wrap items-end gap-x-3 gap-y-2 pb-2">
      <SmallField label="Look for" id={`${id}-text`} className="w-56">
        <input
          id={`${id}-text`}
          type="search"
          value={search.text ?? ''}
          maxLength={100}
          onChange={({ target }) => set({ text: target.value })}
          className="h-12 w-full rounded-sm border border-ink-soft bg-white/60 px-2 text-lg"
        />
      </SmallField>
      {pick(
        'group',
        'Of',
        'all steps',
        LOG_GROUPS.map((group) => [group, LOG_GROUP_NAMES[group]] as const),
      )}
      {pick(
        'by',
        'By',
        'everybody',
        people.map((each) => [each, each] as const),
      )}
      {pick('standing', 'Standing', 'all', STANDINGS)}
      <p className="pb-3" role="status">
        {narrowed ? `${found} of ${setup.log.length}` : `${setup.log.length} entries`}
      </p>
      <div className="ml-auto flex gap-2">
        <Button
          className="h-12"
          onClick={() => saveFile(logCsv(setup.log, describe), `${name}-log.csv`, 'text/csv')}
        >
          <FileDown aria-hidden size={20} /> CSV
        </Button>
        <Button
          className="h-12"
          onClick={() =>
            saveFile(
              JSON.stringify(
                setup.log.map(({ entry }) => entry),
                null,
                1,
              ),
              `${name}-log.json`,
              'application/json',
            )
          }
        >
          <FileDown aria-hidden size={20} /> JSON
        </Button>
      </div>
    </div>
  )
}
