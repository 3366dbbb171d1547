import type { Logged, Reference, Setup } from '@dogleg/core/setup'
import { makeSetupFile, type SetupSheet, type SheetLine, type Stated } from '@dogleg/core/sheet'
import { FileDown, Printer } from 'lucide-react'
import { QRCodeSVG } from 'qrcode.react'
import type { ReactNode } from 'react'
import { useOperator } from '../log/operator.ts'
import { Button } from '../ui/button.tsx'
import { saveFile } from '../ui/save-file.ts'
import { sayWhen } from '../ui/when.tsx'
import { SheetPicture } from './sheet-picture.tsx'

interface SheetViewProps {
  sheet: SetupSheet
  setup: Setup
  entries: readonly Logged[]
  reference: Reference
}

const fileName = (title: string) => `${title.toLowerCase().replace(/[^a-z0-9]+/g, '-')}-setup.json`

/** The setup sheet, as it is printed; as a file it can be read back on another installation. */
export function SheetView({ sheet, setup, entries, reference }: SheetViewProps) {
  const operator = useOperator()
  const address = `${window.location.origin}/setups/${setup.id}`
  return (
    <>
      <div className="flex flex-wrap items-center gap-3 py-2 print:hidden">
        <Button look="primary" onClick={() => window.print()}>
          <Printer aria-hidden size={20} /> Print, or save as PDF
        </Button>
        <Button
          onClick={() =>
            saveFile(
              JSON.stringify(makeSetupFile(setup, entries, reference, sheet, operator || '-'), null, 1),
              fileName(sheet.title),
              'application/json',
            )
          }
        >
          <FileDown aria-hidden size={20} /> Save as JSON
        </Button>
        <p className="text-ink-soft">
          The file holds the whole log: another Dogleg reads it back, under Open a setup.
        </p>
      </div>
      <article
        aria-label="Setup sheet"
        className="setup-sheet mx-auto w-full max-w-5xl border border-rule bg-white/50 p-5 print:max-w-none print:border-0 print:bg-white print:p-0"
      >
        <header className="flex items-start gap-4 border-b-2 border-ink pb-2">
          <div className="flex-1">
            <h2 className="text-2xl leading-tight font-semibold">{sheet.title}</h2>
            <p>
              {sheet.machine}, {sheet.profile}, lengths in {sheet.unit}, part zero within {sheet.tolerance}
            </p>
            <p className="text-sm">
              Opened by {sheet.opened.by}, {sayWhen(sheet.opened.at)}. This sheet: {sayWhen(sheet.made)}.
              {sheet.handedOver && ` Handed over by ${sheet.handedOver.by}, ${sayWhen(sheet.handedOver.at)}.`}
            </p>
          </div>
          <figure className="flex items-end gap-2 text-right text-xs">
            <figcaption className="w-32 pb-1 break-all">{address}</figcaption>
            <QRCodeSVG value={address} size={84} marginSize={1} title={`Opens ${address}`} />
          </figure>
        </header>
        {sheet.stale.length > 0 && (
          <p className="hatched mt-2 border border-ink px-2 py-1 font-semibold">
            Stale: {sheet.stale.join(', ')}. Measure again before this is used.
          </p>
        )}
        <div className="grid gap-x-6 md:grid-cols-[1fr_20rem] print:grid-cols-[1fr_17rem]">
          <div>
            <Lines title="How it is held" lines={sheet.hold} none="Nothing is recorded." />
          </div>
          <SheetPicture layout={setup.prove.layout?.layout} lathe={setup.machine.kind === 'lathe'} />
        </div>
        <Block title="Work offsets">
          <Table
            heads={['offset', 'axis', 'machine position', 'within', 'how', 'who, when']}
            rows={sheet.offsets.flatMap(({ name, axes, angle, stock, check }) => [
              ...axes.map((each, index) => [
                index === 0 ? <b key="name">{name}</b> : '',
                each.axis,
                <Digits key="value" big stale={each.stale}>
                  {each.value}
                </Digits>,
                <Digits key="doubt">{each.doubt}</Digits>,
                each.method,
                said(each),
              ]),
              ...[angle, stock, check].flatMap((line) =>
                line
                  ? [
                      [
                        '',
                        '',
                        <span key="says" className={line.stale ? 'hatched px-1' : ''}>
                          {line.what}: {line.says}
                        </span>,
                        line.more,
                        '',
                        said(line),
                      ],
                    ]
                  : [],
              ),
            ])}
          />
        </Block>
        <Block title="Tools and lengths">
          <Table
            heads={['T', 'tool', 'length', 'within', 'who, when']}
            rows={sheet.tools.map((tool) => [
              <Digits key="tool">{tool.tool}</Digits>,
              tool.name,
              <Digits key="length" big stale={tool.stale}>
                {tool.length}
              </Digits>,
              <Digits key="doubt">{tool.doubt}</Digits>,
              tool.by && tool.at
                ? said({ by: tool.by, at: tool.at, ...(tool.stale ? { stale: tool.stale } : {}) })
                : '',
            ])}
          />
        </Block>
        <Block title="Programs">
          <Table
            heads={['program', 'it is', 'revision', 'verdict', 'cycle', 'who, when']}
            rows={sheet.programs.map((program) => [
              <b key="title">{program.title}</b>,
              program.what,
              <Digits key="revision">{program.revision}</Digits>,
              program.verdict,
              program.time,
              said(program),
            ])}
          />
        </Block>
        {sheet.pallets.lines.length > 0 && (
          <Block title="Pallets">
            <Table
              heads={['pallet', 'in the table', 'what is on it', 'parts and hands']}
              rows={sheet.pallets.lines.map(({ pallet, program, says, more }) => [
                <Digits key="pallet">{pallet}</Digits>,
                <Digits key="program" big>
                  O{program}
                </Digits>,
                says,
                more,
              ])}
            />
            {sheet.pallets.start && (
              <p>
                Before the start: {sheet.pallets.start.says} ({said(sheet.pallets.start)}).
              </p>
            )}
          </Block>
        )}
        {sheet.gauging.map(({ title, values }) => (
          <Block key={title} title={`Measured on each part: ${title}`}>
            <Table
              heads={['value', 'nominal', 'from', 'to']}
              rows={values.map(({ name, nominal, lower, upper }) => [
                name,
                <Digits key="nominal">{nominal}</Digits>,
                <Digits key="lower">{lower}</Digits>,
                <Digits key="upper">{upper}</Digits>,
              ])}
            />
          </Block>
        ))}
        <Lines title="Looked at and let stand" lines={sheet.accepted} none="Nothing." />
        {sheet.saved.length > 0 && <Lines title="Time saved" lines={sheet.saved} none="" />}
        <div className="grid gap-x-6 md:grid-cols-2 print:grid-cols-2">
          <Block title="Cautions">
            <ul className="list-disc pl-5">
              {sheet.cautions.map((line) => (
                <li key={line}>{line}</li>
              ))}
            </ul>
          </Block>
          <Block title="Left to do">
            {sheet.left.length === 0 ? (
              <p>Everything that was begun is done.</p>
            ) : (
              <ul className="list-disc pl-5">
                {sheet.left.map((line) => (
                  <li key={line}>{line}</li>
                ))}
              </ul>
            )}
          </Block>
        </div>
        {sheet.notes.length > 0 && <Lines title="Notes" lines={sheet.notes.slice(-4)} none="" />}
        <footer className="mt-3 border-t border-ink pt-1 text-sm">
          The machine builder’s manual, the shop’s rules and local safety regulations come first. A qualified
          person must prove every program.
        </footer>
      </article>
    </>
  )
}

const said = ({ by, at, stale }: Stated) => `${by}, ${sayWhen(at)}${stale ? `; stale: ${stale}` : ''}`

function Block({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section aria-label={title} className="mt-3 break-inside-avoid">
      <h3 className="border-b border-ink font-semibold">{title}</h3>
      {children}
    </section>
  )
}

function Digits({
  big,
  stale,
  children,
}: {
  big?: boolean
  stale?: string | undefined
  children: ReactNode
}) {
  return (
    <span className={`digits ${big ? 'text-lg font-semibold' : ''} ${stale ? 'hatched px-1' : ''}`}>
      {children}
    </span>
  )
}

function Lines({ title, lines, none }: { title: string; lines: readonly SheetLine[]; none: string }) {
  return (
    <Block title={title}>
      {lines.length === 0 && <p>{none}</p>}
      <Table
        heads={[]}
        rows={lines.map((line) => [
          <b key="what">{line.what}</b>,
          <span key="says" className={line.stale ? 'hatched px-1' : ''}>
            {line.says}
          </span>,
          line.more,
          said(line),
        ])}
      />
    </Block>
  )
}

function Table({ heads, rows }: { heads: readonly string[]; rows: readonly (readonly ReactNode[])[] }) {
  if (rows.length === 0) return null
  return (
    <table className="w-full text-sm">
      {heads.length > 0 && (
        <thead>
          <tr className="text-left text-ink-soft">
            {heads.map((head, index) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: a column is its place
              <th key={index} className="pr-3 font-normal">
                {head}
              </th>
            ))}
          </tr>
        </thead>
      )}
      <tbody>
        {rows.map((cells, row) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a row of the sheet is its place
          <tr key={row} className="border-t border-rule align-baseline">
            {cells.map((cell, index) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: a cell is its place
              <td key={index} className="py-0.5 pr-3">
                {cell}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  )
}
