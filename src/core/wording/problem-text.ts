import { feltWords } from '../vocabulary/felt-words';
import type { FluidKind } from '../vocabulary/fluid';
import type { SpherePurpose } from '../vocabulary/sphere-purpose';
import type { CircuitFaultId } from '../vocabulary/circuit-fault';
import type { AnalysisProblem } from '../vocabulary/analysis-problem';
import { isDriveProblem } from '../vocabulary/drive-problem';
import { isElectricalProblem } from '../vocabulary/electrical-problem';
import { isFoundationProblem } from '../vocabulary/foundation-problem';
import { decoupledProblemText } from './decoupled-problem-text';
import { driveProblemText } from './drive-problem-text';
import { electricalProblemText } from './electrical-problem-text';
import { foundationProblemText } from './foundation-problem-text';
import { withUnit, type DisplayUnits } from './display';
import { shownAs } from '../quantities/shown-as';
import { characteristicTitle } from '../quantities/characteristics';
import { channelTitle } from '../quantities/channels';
import { counted } from './counted';
import { waitText } from './wait-text';
// Whoever says a word in a sentence needs the registry, which has joined them all.
import '../families/words';

/** Spheres and fluids in a sentence. */
export const sphereWords: Readonly<Record<SpherePurpose, string>> = {
  brake: 'brake sphere',
  main: 'main accumulator',
  suspension: 'suspension sphere',
};

export const fluidWords: Readonly<Record<FluidKind, string>> = {
  glycol: 'glycol fluid',
  silicone: 'silicone fluid',
  mineral: 'mineral oil',
};

/** Faults that a pump's cycles tell apart, in words. */
export const cycleFaults: Readonly<Record<CircuitFaultId, string>> = {
  'precharge-low': 'precharge low (run and rest both short)',
  'internal-leak': 'internal leak (rest short, run about normal)',
  'pump-weak': 'weak pump (run long, rest normal)',
  'switch-low': 'switch shifted low',
  'switch-high': 'switch shifted high',
  'switch-band-narrow': 'switch band narrow (both short, cut-in too near cut-out)',
};

/** How far apart readings are (s): to two figures where that is what is needed. */
const apartText = (seconds: number) => (seconds < 10 ? `${seconds.toPrecision(2)} s` : waitText(seconds));

/** What a trace could not tell, or what was noticed, and what to do about it; where a figure could not be had stands a dash. */
export const analysisProblemText = (problem: AnalysisProblem, units: DisplayUnits): string =>
  textOf(problem, units).replace(/NaN|−?Infinity/g, '–');

function textOf(problem: AnalysisProblem, units: DisplayUnits): string {
  const gauge = (si: number) => withUnit(si, 'gauge', units);
  switch (problem.code) {
    case 'no-pull':
      return `No pull found in ${channelTitle(problem.channel).toLowerCase()}: record from rest, through the pull, to rest again.`;
    case 'not-read':
      return 'Not read: type it, or run the step.';
    case 'rows-still-to-read':
      return problem.read === 0
        ? `Nothing can be told from fewer than ${problem.needed} rows.`
        : `${problem.needed - problem.read === 1 ? 'One more row tells' : `${problem.needed - problem.read} more rows tell`} it.`;
    case 'rows-too-far-on':
      return `Read at least two rows below ${withUnit(problem.below, shownAs(problem.channel), units)}: from there on the curve may have bent already.`;
    case 'too-quick-for-a-watch':
      return `Over before a watch could be stopped: it took less than ${problem.seconds} s.`;
    case 'no-person-reads':
      return 'No person reads this off dials: bring a log of it, or run it on the bench.';
    case 'first-movement-contradicts': {
      const said = (value: number) => withUnit(value, shownAs(problem.channel), units);
      return `A first movement at ${said(problem.at)} does not fit the rows, by which it lies between ${said(Math.max(0, problem.low))} and ${said(problem.high)}: they count.`;
    }
    case 'hose-takes': {
      const said = (value: number) => withUnit(value, 'vacuum-difference', units);
      const when = [
        ...(problem.idle > 0 ? [`${said(problem.idle)} at idle`] : []),
        ...(problem.held > 0 ? [`${said(problem.held)} while held`] : []),
      ];
      return `The hose between engine and unit takes ${when.join(' and ')}.`;
    }
    case 'felt-only':
      return `Felt, not measured: ${feltWords[problem.felt]}.`;
    case 'half-helped':
      return `At least so many: ${problem.strokes === 1 ? 'a stroke that helped by half' : `${problem.strokes} strokes that helped by half`} may count as well.`;
    case 'foot-not-known':
      return 'Nobody knows what the foot pressed with: only the ratio is judged, by what any foot may give.';
    case 'no-way-back':
      return 'The way back is missing: keep recording until the lever is home.';
    case 'no-rest-before':
      return 'No rest before the pull, so the gauges’ zeros could not be read: start recording before pulling.';
    case 'no-rest-after':
      return `Less than ${problem.seconds} s of rest after release: keep recording a little longer.`;
    case 'no-boost':
      return 'Output never rose above input: no boost.';
    case 'run-out-not-reached':
      return problem.by > 0
        ? `Run-out not reached by ${gauge(problem.by)}: pull beyond ${gauge(problem.peak + problem.by)}.`
        : `Run-out not reached up to ${gauge(problem.peak)}: pull further.`;
    case 'knee-not-reached':
      return problem.by > 0
        ? `Run-out not reached by ${withUnit(problem.by, 'force', units)}: push beyond ${withUnit(problem.peak + problem.by, 'force', units)}.`
        : `Run-out not reached up to ${withUnit(problem.peak, 'force', units)}: push further.`;
    case 'reference-not-reached':
      return `The pull ended at ${gauge(problem.peak)}, before the reference input of ${gauge(problem.reference)}.`;
    case 'control-port-missing':
      return 'No control vacuum in this trace: connect the control port’s gauge.';
    case 'supply-missing':
      return 'No supply vacuum in this trace: connect the supply gauge.';
    case 'valve-opening-not-found':
      return 'The control port never left the supply.';
    case 'too-few-levels':
      return `${counted(problem.found, 'pressure level')} found where ${problem.needed} are needed: hold each level for two seconds.`;
    case 'fit-failed':
      return `No line could be fitted (${problem.termination}).`;
    case 'switch-never-closed':
      return `The switch never closed up to ${gauge(problem.peak)}.`;
    case 'switch-never-opened':
      return 'The switch never opened again.';
    case 'switch-always-closed':
      return 'The switch was closed before the pull began.';
    case 'switch-opens-when-pressed':
      return 'This column is on at rest and goes off when the brake is pressed: another contact of the switch, or written the other way round. Log the lamps’ own contact.';
    case 'no-hold':
      return `No hold found in ${channelTitle(problem.channel).toLowerCase()}: pull, shut the input, wait ${problem.seconds} s.`;
    case 'hold-too-short':
      return problem.seconds < 0.05
        ? `Nothing is seen to be held: ${problem.needed.toFixed(1)} s are needed.`
        : `Held for ${problem.seconds.toFixed(1)} s where ${problem.needed.toFixed(1)} s are needed.`;
    case 'source-never-opened':
      return `The vacuum never rose above ${withUnit(problem.vacuum, 'vacuum', units)}: the source was not opened, or the gauge is not connected.`;
    case 'begins-without-vacuum':
      return `This log begins at ${withUnit(problem.vacuum, 'vacuum', units)} and reaches ${withUnit(problem.later, 'vacuum', units)} only later: begin it with the vacuum standing and the source side shut.`;
    case 'too-little-vacuum':
      return `Held from ${withUnit(problem.vacuum, 'vacuum', units)}, where at least ${withUnit(problem.needed, 'vacuum', units)} are needed: less vacuum leaks less. Draw it down further and hold again.`;
    case 'source-not-seen-shut':
      return 'After it was drawn down the vacuum never left its level, as it would with the source still open: shut the source, and record until a loss shows or begin the log in the hold.';
    case 'begins-in-hold':
      return 'It was held from the first sample on, and never seen being shut off: it is judged from there, taking it that it was shut.';
    case 'source-reopened':
      return `The vacuum came back after ${problem.after.toFixed(1)} s: the source was opened again. What came before is all that was judged.`;
    case 'vacuum-collapsed':
      return `After ${problem.after.toFixed(1)} s all of the vacuum went at once: it was vented, or something gave way. Hold again to tell which.`;
    case 'lever-moved':
      return `The lever moved after ${problem.after.toFixed(1)} s: leave it where it is for the whole hold.`;
    case 'not-at-rest':
      return 'The unit was not at rest while it was held: let the lever home first.';
    case 'not-seen-applied':
      return `Nothing in this log shows that the unit was applied: record ${channelTitle(problem.channel).toLowerCase()} with it.`;
    case 'not-applied':
      return `The unit was not fully applied: ${withUnit(problem.peak, shownAs(problem.channel), units)} where ${withUnit(problem.needed, shownAs(problem.channel), units)} are needed.`;
    case 'side-not-seen-open':
      return 'Nothing in this trace shows that the source side was opened to the air: log a gauge there too (source_vacuum), or the valve held back nothing that anybody saw.';
    case 'side-not-opened':
      return `The source side still had ${withUnit(problem.vacuum, 'vacuum', units)}: it was not opened to the air, so the valve had nothing to hold back.`;
    case 'gains':
      return `It gained ${withUnit(problem.gain, shownAs(problem.channel) === 'vacuum' ? 'vacuum-difference' : 'difference', units)}, which nothing that is shut off can do: the source was open, or the sign or the reference of the gauge is wrong.`;
    case 'gauge-frozen':
      return `${channelTitle(problem.channel)} stood at one and the same figure for ${problem.seconds.toFixed(1)} s: the gauge or its logger was frozen.`;
    case 'gauge-clipped':
      return `${channelTitle(problem.channel)} stood at its end stop, ${withUnit(problem.at, shownAs(problem.channel), units)}: use a gauge with more range.`;
    case 'too-few-samples':
      return `${counted(problem.samples, 'sample')} of ${channelTitle(problem.channel).toLowerCase()} where ${problem.needed} are needed: record faster, or hold longer.`;
    case 'sign-turned':
      return `${channelTitle(problem.channel)} is negative throughout this log: its sign was turned.`;
    case 'read-as-absolute':
      return `${channelTitle(problem.channel)} is an absolute pressure in this log: it was taken from today’s air.`;
    case 'reference-assumed':
      return `${channelTitle(problem.channel)} was read as ${problem.as}, as told.`;
    case 'repeats-differ': {
      const as = shownAs(problem.characteristic);
      const differ = `The repeats of ${characteristicTitle(problem.characteristic).toLowerCase()} differ by ${withUnit(problem.by, as, units)}, more than their uncertainty allows`;
      return problem.eachPasses
        ? `${differ}; nothing that is limited hangs on it.`
        : `${differ}: something changed between them. Strike out the one that went wrong, with the reason.`;
    }
    case 'repeats-end-differently':
      return `Some runs gave a figure for ${characteristicTitle(problem.characteristic).toLowerCase()}, others ended without one: it was not the same each time. Find out why, and strike out the one that went wrong, with the reason.`;
    case 'no-modulating-line':
      return `Output rose to ${problem.ratio.toFixed(2)} times the input, but on no straight line that could be told: pull more slowly and evenly, and log faster.`;
    case 'gap-in-hold':
      return `Nothing was recorded of ${channelTitle(problem.channel).toLowerCase()} for ${problem.seconds.toFixed(1)} s of the hold: hold again.`;
    case 'gap-in-pull':
      return `Nothing was recorded for ${problem.seconds.toFixed(1)} s of the pull, where its figures would be: pull again.`;
    case 'pulled-too-quickly':
      return `Pulled to the top in ${problem.seconds.toFixed(1)} s: the unit and its lines need time to follow. Take ten seconds or more, never less than ${problem.needed} s.`;
    case 'reserve-from-too-little':
      return `Counted from ${withUnit(problem.vacuum, 'vacuum', units)} only, where the source should leave ${withUnit(problem.should, 'vacuum', units)}: a unit with more has more strokes. Draw it down fully and count again.`;
    case 'source-still-on':
      return 'The vacuum came back between the strokes: the source was still on, and this was no reserve. Shut it off and count again.';
    case 'strokes-uneven':
      return `The strokes differ by ${Math.round(problem.share * 100)} % in ${channelTitle(problem.channel).toLowerCase()}: a lighter stroke gives less whatever is left. Press alike and count again.`;
    case 'pump-ran-between':
      return `${channelTitle(problem.channel)} rose between the strokes: the pump ran meanwhile. Switch it off and count again.`;
    case 'not-from-empty':
      return `Began with ${withUnit(problem.left, 'gauge', units)} still in the store: its knee lies below that. Make it dead and charge again.`;
    case 'shell-taken-as-air':
      return `Nobody measured the shell: its gas is taken to be as warm as the air, within ${problem.within} K. State the shell's temperature, or let it settle in the shop for an hour and say so.`;
    case 'steering-not-seen':
      return 'The pump line never rose while the brake was held: no steering was seen. Turn hard over and hold.';
    case 'never-idled':
      return 'The pump was never seen to idle before its line was shut: let it run free for some seconds first.';
    case 'relief-creeps':
      return `The relief pressure crept by ${withUnit(problem.by, 'gauge', units)} while it was held.`;
    case 'relief-chatters':
      return `The relief chattered by ${withUnit(problem.by, 'gauge', units)} to and fro.`;
    case 'still-changing':
      return `${channelTitle(problem.channel)} was still changing, by ${withUnit(problem.by, shownAs(problem.channel), units)} over what was read: wait until it stands.`;
    case 'barometer-questioned':
      return `The barometer is ${(Math.abs(problem.by) / 1e3).toFixed(1)} kPa ${problem.by > 0 ? 'above' : 'below'} what the altitude gives: is it a station reading, not one reduced to sea level? Until that is settled it counts in the limits.`;
    case 'store-not-full':
      return `Counted from ${withUnit(problem.pressure, 'gauge', units)}, where a full store holds ${withUnit(problem.full, 'gauge', units)}: there are at least so many. Charge it fully and count again.`;
    case 'stepped-in-rest':
      return `${channelTitle(problem.channel)} fell by ${withUnit(problem.by, 'gauge', units)} at once while nobody should have touched the pedal: that rest was left out.`;
    case 'line-in-rise':
      return `The rise of ${channelTitle(problem.channel).toLowerCase()} is at most this: a long line to its gauge may make up to ${problem.seconds.toFixed(1)} s of it. Enter the gauge's lag on its instrument to know better.`;
    case 'dials-assumed':
      return `No instrument is named for ${problem.channels.map((channel) => channelTitle(channel).toLowerCase()).join(', ')}: what was read there counts as off an ordinary dial, 2 % of the reading. Mount the gauge that was read, and it counts as what it is.`;
    case 'gauges-assumed':
      return `No instrument is named for ${problem.channels.map((channel) => channelTitle(channel).toLowerCase()).join('; ')}: this log’s figures are taken to be as good as the stand-in’s own gauges. Mount the gauge that wrote them, and they count as what they are.`;
    case 'written-over': {
      const channels = problem.channels.map((channel) => channelTitle(channel).toLowerCase()).join('; ');
      return problem.between === 'again'
        ? `The logger wrote each sample of ${channels} ${problem.times} times over: what it wrote again counts for nothing.`
        : `Only about one row in ${problem.times} was measured, with straight lines drawn between (${channels}): the lines count for nothing.`;
    }
    case 'written-in-turn':
      return `This log’s columns are written in different rows: what belongs to a moment was put together, over ${Math.ceil(problem.carried * 1e3)} ms at most.`;
    case 'lag-taken-off':
      return `${channelTitle(problem.channel)} reads ${Math.abs(problem.lag).toFixed(2)} s ${problem.lag > 0 ? 'later' : 'earlier'} than the lever: that was taken off.`;
    case 'lag-not-known':
      return `How late ${channelTitle(problem.channel).toLowerCase()} reads cannot be told from this log, nor from the instruments' records: ${problem.allowed.toFixed(1)} s are allowed for.`;
    case 'does-not-follow':
      return `Beyond a point of the pull ${channelTitle(problem.channel).toLowerCase()} stands still, which no unit gives: its gauge is at its end, frozen, or shut off.`;
    case 'supply-not-off':
      return `${channelTitle(problem.channel)} was still ${withUnit(problem.left, shownAs(problem.channel), units)}, where this is pushed without any assist: take it away and push again.`;
    case 'too-little-pressure':
      return `${channelTitle(problem.channel)} was ${withUnit(problem.pressure, shownAs(problem.channel), units)}, where at least ${withUnit(problem.needed, shownAs(problem.channel), units)} are needed to work with.`;
    case 'held-elsewhere':
      return problem.at < problem.low
        ? `Held at ${gauge(problem.at)} only, where at least ${gauge(problem.low)} are needed.`
        : `Held at ${gauge(problem.at)}, where this hold is made below ${gauge(problem.high)}: seals that weep there close at more.`;
    case 'settling-left-out':
      return `${withUnit(problem.amount, 'vacuum-difference', units)} were air warming after it was drawn, told apart by their shape: they are no leak and not counted.`;
    case 'not-settled':
      return `The vacuum had not settled (${withUnit(problem.rate, 'vacuum', units)} per second): wait longer.`;
    case 'no-draw':
      return 'The vacuum was not seen to rise from zero: start recording with the source shut.';
    case 'no-volume':
      return 'No volume on the sheet or for the bench, so the leak cannot be stated as a flow.';
    case 'no-release':
      return 'The lever was not let back in this trace.';
    case 'residual-never-reached':
      return `The output never fell within ${withUnit(problem.level, 'difference', units)} of its zero.`;
    case 'run-out-disagrees':
      return `The control port touched zero at ${gauge(problem.controlZero)} but the lines meet at ${gauge(problem.runOut)}: look for a leak at the control valve.`;
    case 'pair-not-corrected':
      return `The pair differs by ${gauge(problem.worst)} at ${gauge(problem.at)}, outside the limit: nothing is corrected. Swap the gauges; if the error stays with the unit, the bypass is blocked.`;
    case 'pair-corrected':
      return `Output gauge corrected to the input gauge: gain ${problem.gain.toFixed(4)}, offset ${withUnit(problem.offset, 'difference', units)}.`;
    case 'pair-not-measured':
      return 'The gauges were not compared, so U carries both gauges’ own errors.';
    case 'vacuum-pair-not-measured':
      return 'The vacuum gauges were not compared on a tee, so U carries both gauges’ own errors.';
    case 'no-strokes':
      return `No strokes found in ${channelTitle(problem.channel).toLowerCase()}: press, hold for a second, let go.`;
    case 'reserve-not-used-up':
      return `${counted(problem.strokes, 'stroke')}, all of them assisted: there may be more in reserve.`;
    case 'too-few-strokes':
      return `${counted(problem.strokes, 'stroke')} where this workshop counts ${problem.needed} until the reserve is used up.`;
    case 'last-strokes-differ':
      return `The last two of ${problem.strokes} strokes still differ: the reserve was not used up.`;
    case 'vacuum-gone':
      return `Only ${withUnit(problem.vacuum, 'vacuum', units)} were left when the source side was opened: the unit leaks, so the valve cannot be judged.`;
    case 'called-early':
      return `Called at ${problem.at.toFixed(0)} s of ${waitText(problem.of)}: what the full time would show is predicted, taking it that nothing opens later.`;
    case 'nothing-builds':
      return `Only ${withUnit(problem.vacuum, 'vacuum', units)} with the source called for: a dead pump, or a leak it cannot keep up with.`;
    case 'sensor-differs':
      return `The vehicle’s sensor and the gauge on the tee differ by ${withUnit(problem.difference, 'vacuum-difference', units)}: the sensor is off, or its line.`;
    case 'no-pump-signal':
      return 'Nothing in this trace tells when the pump ran: record its signal too.';
    case 'pump-never-started':
      return 'The pump never started in this trace.';
    case 'pump-never-stopped':
      return `The pump ran to the end, at ${withUnit(problem.vacuum, 'vacuum', units)}.`;
    case 'rest-outlasts':
      return `It rested longer than was watched: at least ${waitText(problem.seconds)}.`;
    case 'uneven-loss':
      return `The reading between lies ${withUnit(problem.off, 'vacuum-difference', units)} off what any even leak would have left between the ends: read it again, or the leak came and went.`;
    case 'read-far-from-limit':
      return `Much was lost, and the limit speaks of ${waitText(problem.stated)} where the nearest reading is at ${waitText(problem.seconds)}: by then a fast leak looks like a slow one. Read it again at ${waitText(problem.stated)}.`;
    case 'not-between':
      return `The reading after ${waitText(problem.after)} does not lie between the ends of a hold of ${waitText(problem.seconds)}: it was left out.`;
    case 'all-gone':
      return `All of the vacuum was gone within ${waitText(problem.seconds)}: it lost at least that much.`;
    case 'point-off-line':
      return `Point ${problem.point} lies off the line of the others by ${withUnit(problem.off, shownAs(problem.channel), units)}: read it again.`;
    case 'bump-not-seen':
      return 'Nothing in this trace shows a bump that was driven over with the foot off the brake: log the ride height too, or read the gauge over a bump and type it in.';
    case 'gauge-never-moved':
      return `${channelTitle(problem.channel)} read one and the same figure from first to last: quiet, shut off or frozen look alike. Let the same log show it move once (switched on, opened, pressed or let back), so that a dead gauge is not taken for a sound unit.`;
    case 'taken-as-quiet':
      return `${channelTitle(problem.channel)} stood at one figure all along and is taken as a quiet gauge: see that it is alive.`;
    case 'gas-heat-from-trace':
      return `By this bleed the gas takes up heat with a time constant of ${problem.seconds.toFixed(0)} s, not ${problem.sheet.toFixed(0)} s as on the sheet: the bleed was believed.`;
    case 'soaked-too-briefly':
      return `It stood for ${waitText(problem.seconds)} instead of ${waitText(problem.needed)}: what leaks slowly had no time to show.`;
    case 'engine-not-started':
      return 'The engine was not seen running when it was needed.';
    case 'foot-not-still':
      return `The pedal force changed by ${(problem.share * 100).toFixed(0)} %: hold it still.`;
    case 'unassisted-too-small':
      return `Without vacuum the push gave only ${gauge(problem.pressure)}: press harder, both times alike.`;
    case 'source-kind-missing':
      return 'The sheet does not say whether an engine’s manifold or a pump makes the vacuum, so the limit cannot be restated for this altitude: add it to the sheet.';
    case 'short-of-assist': {
      const at = (si: number) => withUnit(si, problem.as, units);
      return `Sound, but short of assist here: with ${withUnit(problem.vacuum, 'vacuum', units)} instead of ${withUnit(problem.rated, 'vacuum', units)} it runs out at ${at(problem.runOut)} instead of ${at(problem.ratedRunOut)}. It is judged at the vacuum it had.`;
    }
    case 'channel-missing':
      return `Nothing recorded of ${channelTitle(problem.channel).toLowerCase()}: connect it and run the step again.`;
    case 'rows-averaged':
      return `Logged far more often than this step needs: the means of ${counted(problem.rows, 'row')} each are what was judged.`;
    case 'logged-too-slowly':
      return `${channelTitle(problem.channel)} was read every ${apartText(problem.every)} only, too seldom to show all that happens here: log it ${problem.needed === 1 ? 'once' : counted(problem.needed, 'time')} a second or more.`;
    case 'run-too-short':
      return 'The pump ran too briefly to be judged: a store without gas charges in a moment.';
    case 'nothing-charged':
      return 'No charge found: record from empty, through the pump’s run, to its stop.';
    case 'not-bled-out':
      return `Bled down to ${gauge(problem.left)} only: bleed until the gauge has collapsed.`;
    case 'no-knee':
      return 'No knee: gas side failed. The pressure came and went at once, so there is no gas to hold it.';
    case 'knee-too-coarse':
      return 'Too few readings next to the knee to tell the precharge: record faster, or charge more slowly.';
    case 'precharges-disagree':
      return `Charging says ${gauge(problem.charging)}, bleeding ${gauge(problem.bleeding)}: let it settle and do both again, and measure the shell’s temperature.`;
    case 'pump-never-stopped-charging':
      return `The pump had not stopped after ${waitText(problem.seconds)}.`;
    case 'cycles-not-settled':
      return `${counted(problem.rests, 'whole rest')}, and no two in succession agree within 5 %: leave it alone for longer.`;
    case 'cycles-speak-for':
      return problem.apart < 4
        ? `By its cycles alone: ${cycleFaults[problem.fault]} or ${cycleFaults[problem.next]}, which they do not tell apart.`
        : `By its cycles alone: ${cycleFaults[problem.fault]}.`;
    case 'log-reads-as':
      return `This reads as a log of “${problem.title}”, not of this step.`;
    case 'log-proportional':
      return `${channelTitle(problem.output)} follows ${channelTitle(problem.lever).toLowerCase()} in one proportion from first to last: one line twice, another step’s log, or a supply that was off.`;
    case 'log-out-of-range':
      return `${channelTitle(problem.channel)} reaches ${withUnit(problem.reaches, shownAs(problem.channel), units)}, where a sound unit of this sheet reaches ${withUnit(problem.sound, shownAs(problem.channel), units)}: it may be another unit’s log, or be in other measurement units.`;
    case 'leak-read-at':
      return `${channelTitle(problem.channel)}: the leak was read at ${gauge(problem.pressure)} on average, and is in proportion to that.`;
    case 'store-not-used-up':
      return `${counted(problem.strokes, 'stroke')}, none of them ending below the least useful pressure: there may be more.`;
    case 'lamp-never-lit':
      return `The lamp never came on, down to ${gauge(problem.down)}.`;
    case 'soak-too-short':
      return `Two readings at least ${waitText(problem.needed)} apart are needed; these span ${waitText(problem.seconds)}.`;
    case 'nothing-lost':
      return `Nothing was lost that the gauge can tell over ${waitText(problem.seconds)}: wait longer for a figure.`;
    case 'empty-before-half':
      return `The store collapses at its precharge of ${gauge(problem.precharge)}, before its pressure is halved: the time given ends there.`;
    case 'charged-too-long':
      return problem.of === 'motor'
        ? `Stopped: the motor had run for ${waitText(problem.seconds)}, which is its limit. Let it cool.`
        : `Stopped: the pump had stood against its dead end for ${waitText(problem.seconds)}.`;
    case 'not-dead':
      return `Still ${gauge(problem.left)}: this is not dead. Nothing is loosened.`;
    case 'gauge-not-seen-alive':
      return `${channelTitle(problem.channel)} was not seen to move: its zero proves nothing. Let it be seen to fall from pressure, or zero it and tap it up with a known source.`;
    case 'reads-below-zero':
      return `${channelTitle(problem.channel)} reads ${gauge(problem.reading)}, below the air around it, which no vessel can: the gauge, its loop or its sign is at fault, and it proves nothing.`;
    case 'strokes-to-dead':
      return `Dead after ${counted(problem.strokes, 'stroke')}.`;
    case 'sphere-of-other-purpose':
      return `Refused: a ${sphereWords[problem.found]} on a sheet for a ${sphereWords[problem.wanted]}. It is dangerous there, whatever it holds.`;
    case 'fluid-mixed':
      return `Refused: ${fluidWords[problem.found]} where the sheet says ${fluidWords[problem.wanted]}. One destroys the other’s seals; nothing that was wetted goes back.`;
    case 'no-angle':
      return 'The pedal did not move in this trace.';
    case 'circuits-differ-at':
      return `The circuits differ most, by ${withUnit(problem.difference, 'difference', units)}, at ${withUnit(problem.at, shownAs(problem.channel), units)}.`;
    case 'no-step':
      return 'No quick application found: stamp on the pedal and hold it.';
    case 'relief-not-reached':
      return `The pump’s line rose to ${gauge(problem.peak)} and was still rising.`;
    case 'self-applied':
      return `Pressure of ${gauge(problem.pressure)} with the pedal untouched: it applies itself.`;
    case 'pressure-before-pull':
      return `The output stood at ${gauge(problem.pressure)} before the pull.`;
    default:
      if (isElectricalProblem(problem)) return electricalProblemText(problem, units);
      if (isDriveProblem(problem)) return driveProblemText(problem, units);
      if (isFoundationProblem(problem)) return foundationProblemText(problem, units);
      return decoupledProblemText(problem, units);
  }
}
