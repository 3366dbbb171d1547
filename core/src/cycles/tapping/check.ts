import { type Finding, finding, worstFirst } from '../../fact/index.ts'
import { convertLength, formatLength, formatWithUnit } from '../../quantity/index.ts'
import {
  type CycleCase,
  clearanceLow,
  doublePlace,
  printed,
  tooFast,
  toolOf,
  toolUnknown,
} from '../cycle/index.ts'
import type { TapParams } from './params.ts'
import { placeChecks } from './places.ts'
import { mostMultiple } from './retract.ts'
import type { TapSizes } from './sizes.ts'

/** Feed that does not fit the pitch by more than this breaks taps. Common practice. */
const LEAD_SLACK = 0.005
/**
 * Percent of the full thread that is sane, and that breaks taps: common practice. A form tap pushes the metal that it has no
 * room for into the crests, and binds much earlier; where it breaks is by judgement.
 */
const PERCENT = {
  cut: { least: 50, most: 85, breaks: 95, strips: 'strips before the screw breaks' },
  form: { least: 50, most: 75, breaks: 90, strips: 'leaves the crests open' },
} as const

/** A drill this far from the usual one is another: half a step of the sets at these sizes, in mm. */
const TAPER_SLACK_MM = 0.1

const rpmSaid = (turns: number) => `${Math.round(turns)} rpm`

function toolChecks(params: TapParams, sizes: TapSizes, on: CycleCase): Finding[] {
  const { unit } = on
  const say = (value: number) => formatWithUnit(value, unit)
  const found: Finding[] = []
  const lengthCheck = (number: number, field: string, depth: number, what: string) => {
    const tool = toolOf(on, number)
    if (!tool) {
      found.push(toolUnknown(number, field, on))
      return undefined
    }
    if (tool.stickOut < depth)
      found.push(
        finding(
          'stop',
          'tool-short',
          field,
          `T${number} sticks out ${say(tool.stickOut)}; ${what} goes ${say(depth)} deep.`,
          'The holder would go into the part.',
          'Choose a longer tool, or a shallower hole.',
        ),
      )
    return tool
  }
  if (params.drill) {
    const drill = lengthCheck(
      params.drillTool,
      'drillTool',
      sizes.drillDepth + sizes.pointLength,
      'the drill',
    )
    const slack = unit === 'inch' ? 0.002 : 0.05
    if (drill && Math.abs(drill.diameter - sizes.drillDiameter) > slack)
      found.push(
        finding(
          'stop',
          'drill-differs',
          'drillTool',
          `T${params.drillTool} is ${say(drill.diameter)} in the tool table; the hole is to be ${say(sizes.drillDiameter)}.`,
          'Another drill leaves another thread.',
          'Choose the tool that has the drill, or correct the diameter.',
        ),
      )
  }
  if (params.chamfer) lengthCheck(params.chamferTool, 'chamferTool', sizes.chamfer.depth, 'the chamfer')
  if (params.tapping) {
    const tap = lengthCheck(params.tapTool, 'tapTool', sizes.tapDepth, 'the tap')
    const { pitch, major } = sizes.thread
    if (tap && tap.pitch === null)
      found.push(
        finding(
          'stop',
          'tap-no-tap',
          'tapTool',
          `T${params.tapTool} is no tap in the tool table.`,
          'Going in in step with the spindle, anything else is torn out.',
          'Choose the tool that has the tap.',
        ),
      )
    else if (tap?.pitch && Math.abs(tap.pitch / pitch - 1) > LEAD_SLACK)
      found.push(
        finding(
          'stop',
          'tap-pitch',
          'tapTool',
          `T${params.tapTool} has a pitch of ${say(tap.pitch)}; the thread has ${say(pitch)}.`,
          'A feed that does not fit the tap breaks it.',
          'Choose the tap of this thread, or the thread of this tap.',
        ),
      )
    else if (tap && Math.abs(tap.diameter - major) > 0.02 * major)
      found.push(
        finding(
          'look',
          'tap-size',
          'tapTool',
          `T${params.tapTool} is ${say(tap.diameter)} across; the thread is ${say(major)}.`,
          'The pitch fits, the size does not.',
        ),
      )
  }
  return found
}

function depthChecks(params: TapParams, sizes: TapSizes, { unit }: CycleCase): Finding[] {
  const say = (value: number) => formatWithUnit(value, unit)
  const { tapDepth, threadDepth, lead, drillDepth, room, thread } = sizes
  const found: Finding[] = []
  const blind = params.hole === 'blind'
  if (params.tapping && params.drill && blind && room < 0)
    found.push(
      finding(
        'stop',
        'thread-too-deep',
        'tapDepth',
        `The tap goes ${say(tapDepth)} deep, the hole only ${say(drillDepth)}.`,
        'The tap meets the bottom and breaks.',
        `Drill at least ${say(tapDepth + thread.pitch)} deep, or take a tap with a shorter lead.`,
      ),
    )
  else if (params.tapping && params.drill && blind && params.tap === 'cut' && room < thread.pitch)
    found.push(
      finding(
        'look',
        'no-chip-room',
        'drillDepth',
        `There is ${say(room)} under the tap for its chips: less than one pitch.`,
        'Packed chips break a tap on the way out as well as on the way in.',
        'Drill deeper, or take a tap that brings the chips up.',
      ),
    )
  if (params.tapping && tapDepth < threadDepth + lead - 1e-9)
    found.push(
      finding(
        'look',
        'thread-short',
        'tapDepth',
        `The thread is full to ${say(Math.max(0, tapDepth - lead))} only; ${say(threadDepth)} is wanted.`,
        `The last ${say(lead)} of the tap is its lead, and cuts no full thread.`,
        `Tap ${say(threadDepth + lead)} deep.`,
      ),
    )
  if (params.drill && !blind && drillDepth < threadDepth)
    found.push(
      finding(
        'stop',
        'not-through',
        'drillDepth',
        `The hole is to go through ${say(threadDepth)}; the drill's full diameter goes ${say(drillDepth)} deep.`,
        'The tap would meet what is left.',
        'Leave the depth empty to have it calculated.',
      ),
    )
  return found
}

function threadChecks(params: TapParams, sizes: TapSizes, on: CycleCase): Finding[] {
  const { unit } = on
  const { thread, drillDiameter, percent, tapFeed, rpm } = sizes
  if (!params.tapping) return []
  const found: Finding[] = []
  const limits = PERCENT[params.tap]
  const around = percent === null ? 0 : Math.round(percent)
  if (drillDiameter >= thread.major)
    found.push(
      finding(
        'stop',
        'drill-too-large',
        'drillDiameter',
        `A hole of ${formatWithUnit(drillDiameter, unit)} leaves no thread of ${formatWithUnit(thread.major, unit)}.`,
        'There is nothing for the tap to cut.',
      ),
    )
  else if (percent === null) {
    const off = Math.abs(drillDiameter - thread.drill)
    if (off > convertLength(TAPER_SLACK_MM, 'mm', unit))
      found.push(
        finding(
          'look',
          'taper-drill',
          'drillDiameter',
          `${formatWithUnit(thread.drill, unit)} is usual for this taper thread without a reamer.`,
          'Larger leaves the threads flat at the small end, smaller loads the tap; with a taper reamer the hole is drilled smaller.',
        ),
      )
    if (params.tap === 'form')
      found.push(
        finding(
          'look',
          'taper-formed',
          'tap',
          'Taper threads are cut: there is no usual hole for a form tap.',
          'The drill shown is that for a tap that cuts.',
        ),
      )
  } else if (percent > limits.breaks)
    found.push(
      finding(
        'stop',
        'drill-too-small',
        'drillDiameter',
        `A hole of ${formatWithUnit(drillDiameter, unit)} leaves ${around} % of the thread: the tap jams in it.`,
        params.tap === 'cut'
          ? `Over ${limits.breaks} % the tap's core has no room.`
          : `Over ${limits.breaks} % the metal has nowhere left to flow.`,
        'Drill larger.',
      ),
    )
  else if (percent > limits.most || percent < limits.least)
    found.push(
      finding(
        'look',
        'thread-percent',
        'drillDiameter',
        `The hole leaves ${around} % of the thread.`,
        percent > limits.most
          ? `More than ${limits.most} % holds hardly better and breaks taps.`
          : `Less than ${limits.least} % ${limits.strips}.`,
      ),
    )
  const off = Math.abs(tapFeed.lead / thread.pitch - 1)
  const along = off * sizes.tapDepth
  if (off > LEAD_SLACK)
    found.push(
      finding(
        'stop',
        'tap-pitch',
        'feedMode',
        `As the control prints it, the feed makes ${formatLength(tapFeed.lead, unit, { digits: 5 })} a turn; the pitch is ${formatLength(thread.pitch, unit, { digits: 5 })}.`,
        'A feed that does not fit the tap breaks it.',
        'Choose another speed, or the other feed mode.',
      ),
    )
  else if (along > (unit === 'inch' ? 0.0005 : 0.012))
    found.push(
      finding(
        'look',
        'feed-rounded',
        'feedMode',
        `Rounded to the digits of this control, the feed is off by ${formatWithUnit(along, unit, { digits: unit === 'inch' ? 5 : 4 })} over the thread.`,
        'A rigid holder has to give that much.',
        params.feedMode === 'turn'
          ? 'Feed a minute, at a speed that divides evenly.'
          : 'Choose a speed that divides evenly.',
      ),
    )
  if (params.lead !== 'bottoming' && params.hole === 'blind' && sizes.lead > sizes.threadDepth)
    found.push(
      finding(
        'note',
        'long-lead',
        'lead',
        `The tap's lead, ${formatWithUnit(sizes.lead, unit)}, is longer than the thread.`,
        'A bottoming tap needs a much shallower hole.',
      ),
    )
  if (thread.taper)
    found.push(
      finding(
        'look',
        'taper-thread',
        'thread',
        `${thread.id} is a taper thread: how deep the tap goes decides its size.`,
        'Measure the first one with a gauge and correct the depth by it.',
      ),
    )
  if (sizes.r.tap < 2 * thread.pitch - 1e-9)
    found.push(
      finding(
        'look',
        'r-plane-low',
        'rPlane',
        `The R plane, ${formatWithUnit(sizes.r.tap, unit)}, is less than two pitches above the part.`,
        'The spindle needs that way to come into step before the thread begins.',
        `Take at least ${formatWithUnit(2 * thread.pitch, unit)}.`,
      ),
    )
  if (params.hand === 'left' && on.machine.kind === 'lathe' && on.profile.reading.leftTap === null)
    found.push(
      finding(
        'stop',
        'no-left-tap',
        'hand',
        'The profile names no code that taps a left-hand thread on a lathe.',
        'G74 is another cycle there, and G84 may turn the spindle back to M3: the tap breaks.',
        'Look it up in the control’s manual, and enter it in the profile.',
      ),
    )
  const tapTop = on.machine.dynamics?.tapTop
  if (tapTop !== undefined && rpm.tap > tapTop + 0.5)
    found.push(
      finding(
        'stop',
        'tap-fast',
        'tapTurns',
        `${rpmSaid(rpm.tap)} is more than ${on.machine.name} taps at: ${rpmSaid(tapTop)}.`,
        'Above it feed and spindle do not stay in step.',
        'Tap slower.',
      ),
    )
  return found
}

function retractChecks(params: TapParams, sizes: TapSizes, on: CycleCase): Finding[] {
  if (!params.tapping) return []
  const { profile, machine } = on
  const word = profile.reading.tapRetract
  const { multiple, limits, stroke, rpm } = sizes
  const found: Finding[] = []
  if (params.multiple === 'typed' && !word && params.multipleTyped !== 1)
    found.push(
      finding(
        'look',
        'retract-no-word',
        'multiple',
        'This control has no word for coming out faster: it is left as the control has it.',
        `The profile ${profile.name} says so.`,
        'Where it is a setting, set it at the control.',
      ),
    )
  if (params.holder === 'floating' && params.multiple === 'typed' && params.multipleTyped !== 1)
    found.push(
      finding(
        'stop',
        'retract-floating',
        'multiple',
        'In a floating holder the tap must come out at the speed that it went in at.',
        'Nothing holds the tap in step: faster out pulls it from the holder or strips the thread.',
        'Write 1, or use a rigid holder.',
      ),
    )
  const most = mostMultiple(stroke, limits)
  if (params.holder === 'rigid' && multiple.value > most + 1e-9) {
    const speed = rpm.tap * multiple.value
    const cap = limits.topSpeed * 60
    if (speed > cap + 0.5)
      found.push(
        finding(
          multiple.written ? 'stop' : 'look',
          'retract-over-cap',
          'multiple',
          `A retract speed of ${multiple.value} x infeed is ${rpmSaid(speed)}; ${machine.name} taps at ${rpmSaid(cap)} at most.`,
          'The control holds it to its top or stops with an alarm, with the tap in the hole.',
          `Take at most ${most}.`,
        ),
      )
    else if (word && multiple.value > word.most)
      found.push(
        finding(
          'stop',
          'retract-range',
          'multiple',
          `${multiple.value} is more than this control takes: ${word.most}.`,
          `The profile ${profile.name} says so.`,
        ),
      )
  }
  if (multiple.written && word && !word.decimal && !Number.isInteger(multiple.value))
    found.push(
      finding(
        'stop',
        'retract-whole',
        'multiple',
        `This control takes whole multiples only, not ${multiple.value}.`,
        `The profile ${profile.name} says so.`,
      ),
    )
  return found
}

/** What is wrong with a set of tapped holes, worst first. */
export function checkTap(params: TapParams, sizes: TapSizes, on: CycleCase): Finding[] {
  const { unit } = on
  const found: Finding[] = []
  if (!params.chamfer && !params.drill && !params.tapping)
    found.push(
      finding(
        'stop',
        'nothing-to-do',
        'tapping',
        'Nothing is to be done.',
        'Chamfer, drill and tap are all off.',
      ),
    )
  const double = doublePlace(sizes.places, unit === 'inch' ? 0.0005 : 0.01)
  if (double)
    found.push(
      finding(
        'look',
        'double-place',
        'places',
        `Hole ${double[0]} and hole ${double[1]} are at the same place.`,
        'The second time the tap goes into a thread that is cut already.',
      ),
    )
  for (const [does, turns, field] of [
    [params.drill, sizes.rpm.drill, 'drillTurns'],
    [params.chamfer, sizes.rpm.chamfer, 'chamferTurns'],
  ] as const)
    if (does) found.push(...tooFast(turns, field, on))
  if (
    printed(sizes.top + sizes.clearance, on) < printed(sizes.top + Math.max(sizes.r.tap, sizes.r.other), on)
  )
    found.push(clearanceLow)
  return worstFirst([
    ...found,
    ...placeChecks(params, sizes, on),
    ...depthChecks(params, sizes, on),
    ...threadChecks(params, sizes, on),
    ...retractChecks(params, sizes, on),
    ...toolChecks(params, sizes, on),
  ])
}
