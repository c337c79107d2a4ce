import { footForPressure } from '../../calculators/brake-force';
import type { CharacteristicId } from '../../quantities/characteristics';
import { analyseStopLampSwitch } from '../../toolboxes/analysis/switch-analysis';
import { noEvidence } from '../../procedure/evidence';
import { answer, joinAnswers, silently } from '../../procedure/question';
import { wait } from '../../procedure/guide-phase';
import type { FoundationUnit } from './geometry';
import { engineOff, pedal, stopEngine, type Context, type Measured } from './step-parts';

const read = { master_pressure: 'stop-lamp-pressure', pedal_travel: 'stop-lamp-travel' } as const;
type Worker = keyof typeof read;

/** Pedal force (N) by which a switch must long have closed: a slow foot, no engine. */
function slowFoot({ stopLamp: { by, most }, master }: FoundationUnit): number {
  return by === 'master_pressure' ? footForPressure(master, most * 1.6) : 160;
}

/** Where the switch closes, by what works it on this vehicle; the other figure is none of it. */
function analyse(trace: Parameters<Measured['analyse']>[0], context: Context) {
  const { by } = context.unit.stopLamp;
  const other: Worker = by === 'master_pressure' ? 'pedal_travel' : 'master_pressure';
  const closes: CharacteristicId = read[by];
  const found = analyseStopLampSwitch({ by, closes, opens: null, closedAtRest: 'too-tight' }, trace, context);
  const none = silently(
    answer(
      {
        characteristics: [read[other]],
        happened: () => noEvidence({ code: 'worked-by-the-other' }),
        shows: () => noEvidence({ code: 'worked-by-the-other' }),
        comesTo: () => ({ characteristics: [], events: [], notes: [] }),
      },
      trace,
      context,
    ),
  );
  return joinAnswers(by === 'master_pressure' ? [found, none] : [none, found]);
}

export const stopLampAdjust: Measured = {
  id: 'stop-lamp-adjust',
  kind: 'measured',
  title: 'Stop-lamp switch',
  why: 'Pressed slowly, without the engine: too tight and the lamps are always on, too slack and nobody behind sees the stop.',
  minutes: 3,
  cautions: ['vehicle-still'],
  optional: false,
  characteristics: ['stop-lamp-pressure', 'stop-lamp-travel'],
  feeds: {
    log: {
      needs: ['stop_switch'],
      anyOf: [['master_pressure'], ['pedal_travel']],
      uses: ['master_pressure', 'pedal_travel', pedal],
      leastRows: 40,
    },
    live: {
      startsFrom: 'empty',
      guide: ({ unit }) => {
        const level = slowFoot(unit);
        return [
          stopEngine(2),
          {
            instruction: { code: 'pull-slowly-past', channel: pedal, level },
            controls: engineOff,
            lever: { to: level * 1.05, seconds: 10 },
            end: { kind: 'input-above', level },
          },
          {
            instruction: { code: 'let-back-slowly', channel: pedal },
            controls: engineOff,
            lever: { to: 0, seconds: 4 },
            end: { kind: 'input-below', level: 5 },
          },
          wait({ code: 'rest', seconds: 1 }, engineOff, 1),
        ];
      },
      bands: ({ unit: { stopLamp } }) => ({ [stopLamp.by]: [stopLamp.least, stopLamp.most] }),
    },
  },
  analyse,
  limits: (_analysis, { unit: { stopLamp } }) => [
    {
      characteristic: read[stopLamp.by],
      low: stopLamp.least,
      high: stopLamp.most,
      expected: (stopLamp.least + stopLamp.most) / 2,
      standard: 0,
      source: {
        kind: 'sheet',
        field: stopLamp.by === 'master_pressure' ? 'stopLampMaxKpa' : 'stopLampTravelMaxMm',
      },
    },
  ],
  pictures: [{ kind: 'over-time', channels: ['master_pressure', 'pedal_travel', 'stop_switch'] }],
};
