import { asList, circlesByDiameter, type HolePlace } from '@dogleg/core/cycles/cycle'
import { formatWithUnit } from '@dogleg/core/quantity'
import { useState } from 'react'
import { Button } from '../ui/button.tsx'
import { asReadHere } from '../ui/decimal-comma.ts'
import { ListField } from '../ui/list-field.tsx'
import { OpenFile } from '../ui/open-file.tsx'
import { PickOne } from '../ui/pick-one.tsx'
import { LengthField, NumberField, Pair, useAnswer, useCycleForm } from './cycle-field.tsx'
import { circlesOfDxf } from './dxf.ts'

/** Larger files are refused. */
const LARGEST_FILE = 20_000_000

type Groups = ReturnType<typeof circlesByDiameter>

/** Where the holes are: typed, by a pattern, from a table or from the circles of an outline. */
export function PlacesFields({ places }: { places: readonly HolePlace[] }) {
  const { change, changeAll, problems, unit, lit, onLit } = useCycleForm()
  const [told, setTold] = useState<string>()
  const [groups, setGroups] = useState<Groups>([])
  const pattern = String(useAnswer('pattern'))
  const list = String(useAnswer('list'))

  const take = async (file: File | undefined) => {
    if (!file) return
    setGroups([])
    if (file.size > LARGEST_FILE) {
      setTold(`${file.name} is larger than 20 MB: no list of holes is.`)
      return
    }
    try {
      const text = await file.text()
      if (!/\.dxf$/i.test(file.name)) {
        changeAll({ pattern: 'list', list: asReadHere(text).trim() })
        setTold(undefined)
        return
      }
      const circles = await circlesOfDxf(text, unit)
      if (circles.length === 0) {
        setTold(`${file.name} has no circles. Holes must be drawn as circles, not as polylines.`)
        return
      }
      setGroups(circlesByDiameter(circles))
      setTold(undefined)
    } catch (error) {
      setTold(
        error instanceof Error && error.name === 'Unclear'
          ? error.message
          : `${file.name} can't be read: it is no DXF text, or it is damaged.`,
      )
    }
  }

  return (
    <div className="space-y-1">
      <PickOne
        label="Places"
        value={pattern}
        onChange={(next) => change('pattern', next)}
        onFocus={() => onLit('places')}
        options={[
          ['list', 'typed or from a file'],
          ['row', 'in a row'],
          ['grid', 'in a grid'],
          ['circle', 'on a bolt circle'],
          ['arc', 'along an arc'],
        ]}
        hint={`${places.length} ${places.length === 1 ? 'hole' : 'holes'}`}
      />
      {pattern === 'list' && (
        <div data-field="places">
          <ListField
            label="X and Y, a hole to a line"
            value={list}
            onChange={(next) => change('list', next)}
            onFocus={() => onLit('places')}
            lit={lit === 'places'}
            hint="0.6 -0.55, then the next line."
            understood={problems.list ? undefined : `${places.length} places`}
            wrong={problems.list && !problems.list.empty ? problems.list.says : undefined}
            rows={4}
          />
        </div>
      )}
      {pattern !== 'list' && (
        <>
          <Pair>
            <LengthField field="x" label={pattern === 'row' || pattern === 'grid' ? 'First X' : 'Centre X'} />
            <LengthField field="y" label={pattern === 'row' || pattern === 'grid' ? 'First Y' : 'Centre Y'} />
          </Pair>
          <Pair>
            <NumberField field="count" label={pattern === 'grid' ? 'In a row' : 'Holes'} />
            {pattern === 'row' || pattern === 'grid' ? (
              <LengthField field="spacing" label="Spacing" />
            ) : (
              <LengthField field="diameter" label="Diameter" />
            )}
          </Pair>
          {pattern === 'grid' && (
            <Pair>
              <NumberField field="rows" label="Rows" />
              <LengthField field="rowSpacing" label="Row to row" />
            </Pair>
          )}
          <Pair>
            <NumberField
              field="angle"
              label={pattern === 'row' || pattern === 'grid' ? 'Direction' : 'First hole at'}
              suffix="deg"
            />
            {pattern === 'arc' && <NumberField field="span" label="To the last" suffix="deg" />}
          </Pair>
        </>
      )}
      <OpenFile
        says="From a CSV or DXF file"
        label="Places from a CSV or DXF file"
        accept=".csv,.txt,.dxf"
        onFile={(file) => void take(file)}
      />
      {told && (
        <p role="status" className="font-semibold">
          {told}
        </p>
      )}
      {groups.length > 0 && (
        <div className="space-y-1">
          <p className="font-semibold">Which circles of the outline?</p>
          {groups.slice(0, 6).map(({ diameter, places: at }) => (
            <Button
              key={diameter}
              className="digits w-full justify-between"
              onClick={() => {
                changeAll({ pattern: 'list', list: asList(at) })
                setGroups([])
              }}
            >
              <span>{formatWithUnit(diameter, unit)}</span>
              <span>
                {at.length} {at.length === 1 ? 'hole' : 'holes'}
              </span>
            </Button>
          ))}
        </div>
      )}
    </div>
  )
}
