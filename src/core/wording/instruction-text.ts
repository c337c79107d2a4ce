import { inSentence } from './in-sentence';
import { liveFigure, shownUnit, type DisplayUnits } from './display';
import { shownAs } from '../quantities/shown-as';
import type { Instruction } from '../vocabulary/instruction';
import { levers, benchLever, leverName } from './lever-words';
import { waitText } from './wait-text';

/** The instruction as an imperative. */
export function instructionText(instruction: Instruction, units: DisplayUnits): string {
  const level = ({ channel, level: si }: { readonly channel: string; readonly level: number }) => {
    const unit = shownUnit(shownAs(channel), units);
    return `${liveFigure(si, unit)} ${unit.symbol}`;
  };
  const pull = ({ channel }: { readonly channel: string }) => (levers[channel] ?? benchLever).pull;
  switch (instruction.code) {
    case 'vacuum-off-rest':
      return 'Leave the vacuum off for a moment';
    case 'pull-slowly-past':
      return `${pull(instruction)} slowly past ${level(instruction)}`;
    case 'pull-to-hold':
      return `${pull(instruction)} to ${level(instruction)} and hold it there`;
    case 'ease-to-hold':
      return `Ease back to ${level(instruction)} and hold it there`;
    case 'hold-there':
      return 'Hold it there';
    case 'let-back-slowly':
      return `Let the ${leverName(instruction.channel)} back slowly`;
    case 'let-go':
      return `Let go of the ${leverName(instruction.channel)} at once`;
    case 'rest':
      return 'Leave it at rest';
    case 'shut-input-and-wait':
      return `Input shut: wait ${instruction.seconds} s`;
    case 'open-vacuum':
      return 'Vacuum on: watch it settle';
    case 'shut-source-and-wait':
      return `Source shut: wait ${instruction.seconds} s`;
    case 'compare-vacuum-gauges':
      return 'Unit shut off: the vacuum gauges read one line';
    case 'stroke':
      return `Stroke ${instruction.number}: ${inSentence(pull(instruction))} to ${level(instruction)}, hold, let go`;
    case 'vent-source-side':
      return `Vent the source side: wait ${instruction.seconds} s`;
    case 'start-engine':
      return 'Start the engine and let it idle';
    case 'stop-engine':
      return 'Stop the engine';
    case 'start-engine-holding':
      return 'Keep your foot still and start the engine';
    case 'stop-engine-clamped':
      return `Clamp the hose and stop the engine: wait ${instruction.seconds} s`;
    case 'open-clamp':
      return `Take the clamp off: wait ${instruction.seconds} s`;
    case 'pump-until-hard':
      return `Pump the pedal ${instruction.strokes} times: it must go hard`;
    case 'soak':
      return `Wait ${waitText(instruction.seconds)} without touching the pedal`;
    case 'actuate-pump':
      return 'Start the pump with the scan tool';
    case 'watch-pump':
      return 'Leave it alone and watch the pump start and stop';
    case 'make-dead':
      return 'Power off: pump the pedal until the gauge is dead';
    case 'make-dead-engine-off':
      return 'Engine off: pump the pedal until the gauges are dead';
    case 'make-dead-bleed':
      return 'Power off: open the bleed valve until the gauge is dead';
    case 'join-sensor':
      return `Gauge and hand pump at the ${instruction.sensor} sensor, its plug on: leave it at nothing`;
    case 'pump-to':
      return `Pump up to ${level(instruction)} and hold ${instruction.seconds} s`;
    case 'let-pump-down':
      return 'Let the hand pump down';
    case 'charge-bank':
      return 'Key on: let the bank charge';
    case 'charger-off':
      return 'Key off: nothing charges it, nothing draws';
    case 'load-bank':
      return `Switch the load on and watch for ${instruction.seconds} s`;
    case 'load-off':
      return 'Load off';
    case 'read-dead':
      return 'Leave it and read what is left';
    case 'power-on-watch':
      return 'Power on: let it charge until the pump stops';
    case 'start-engine-charge':
      return 'Start the engine: let it charge until the pumps stop';
    case 'power-on-rest':
      return 'Power on, pedal untouched';
    case 'bleed-slowly-live':
      return 'Open the bleed valve a little, motor live: wait for the pump';
    case 'bleed-slowly-off':
      return 'Motor off: go on bleeding until the gauge has collapsed';
    case 'bleed-to-start':
      return 'Open the bleed valve a little until the pump starts';
    case 'shut-bleed-watch':
      return 'Shut the bleed valve: let the pump run until it stops';
    case 'leave-cycling':
      return `Hands off: watch ${instruction.times} whole cycles`;
    case 'key-on':
      return 'Key on, hands off the rod';
    case 'key-off-wait':
      return `Key away: wait ${instruction.seconds} s`;
    case 'feed-off':
      return 'Take the feed off: main fuse out, battery off';
    case 'power-off':
      return 'Motor off';
    case 'stroke-until-lamp':
      return `${pull(instruction)} to ${level(instruction)} every ${instruction.every} s until the lamp is long on`;
    case 'soak-watch':
      return `Leave it for ${waitText(instruction.seconds)}: readings at the ends are enough`;
    case 'soak-isolated':
      return `Shut the levelling off and leave it for ${waitText(instruction.seconds)}`;
    case 'drive-over-bump':
      return 'Drive one wheel over the bump, pedal untouched';
    case 'stamp':
      return `Stamp on the pedal: to ${level(instruction)} at once, and hold`;
    case 'dead-head':
      return `Shut the pump’s line for ${instruction.seconds} s at most`;
    case 'open-dead-head':
      return 'Open the line again';
    case 'flow-at-idle':
      return 'Let it idle through the flow meter';
    case 'steer-and-hold':
      return 'Turn the wheel hard over at idle, foot held';
    case 'raise-supply-slowly':
      return `Raise the release pressure slowly past ${level(instruction)}`;
  }
}
