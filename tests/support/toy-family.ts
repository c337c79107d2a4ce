import * as z from 'zod';
import type { Family } from '@/core/contract/family';
import { extentOf } from '@/core/contract/fault';
import type { Kind } from '@/core/contract/kind';
import { sheetFields } from '@/core/contract/sheet-field';
import { random } from '@/core/instruments/uncertainty';
import { measured } from '@/core/procedure/analysis-result';
import { evidence, noEvidence } from '@/core/procedure/evidence';
import { atMost, limitFrom } from '@/core/procedure/limit';
import { plainCurve } from '@/core/procedure/picture';
import { answer, joinAnswers, type Question } from '@/core/procedure/question';
import type { StepContext } from '@/core/procedure/step-context';
import type { MeasuredStep } from '@/core/procedure/step-definition';
import { columnOf } from '@/core/traces/trace';

/*
 * A family that is not there, as small as one can be: it is only logged, nothing is pulled, nothing feeds it, it is measured in two
 * places, and it brings its own words. What the product can do with it, it can do with any.
 */

declare module '@/core/quantities/characteristics' {
  interface CharacteristicWords {
    'cooling-time': true;
  }
}
declare module '@/core/procedure/workshop-limits' {
  interface LimitWords {
    readonly coolingTime: number;
  }
}

interface Disc {
  /** Time in which a disc loses half of its heat, s. */
  readonly half: number;
}
type Spec = z.infer<typeof schema>;
type Context = StepContext<Disc>;

const schema = z.strictObject({ coolingTimeS: z.number().positive().max(3600) });
const field = sheetFields<Spec>();
const channels = ['disc_temperature', 'disc_temperature_rear'] as const;

/** Temperature above the air at the start that a cooling can be read from, K. */
const warm = 40;

interface Cooling {
  readonly start: number;
  readonly halfAt: number | null;
}

function cooling(channel: (typeof channels)[number]): Question<Context, Cooling, { readonly seconds: number }> {
  const id = channel === 'disc_temperature' ? 'cooling-time' : 'cooling-time@rear';
  return {
    characteristics: [id],
    happened(trace, { airTemperature }) {
      const column = columnOf(trace, channel);
      if (!column) return noEvidence({ code: 'channel-missing', channel });
      const above = column.map((value) => value - airTemperature);
      const at = above.findIndex((value) => value <= above[0] / 2);
      return { start: above[0], halfAt: at < 0 ? null : trace.time[at] - trace.time[0] };
    },
    shows: ({ start, halfAt }) =>
      start < warm || halfAt === null ? noEvidence({ code: 'not-read' }) : evidence({ seconds: halfAt }),
    comesTo: ({ seconds }) => ({
      characteristics: [measured(id, seconds, [random('noise', 1)])],
      events: [],
      notes: [],
    }),
  };
}

const step: MeasuredStep<Disc> = {
  id: 'cooling',
  kind: 'measured',
  title: 'Cooling after a stop',
  why: 'A brake that drags keeps its disc warm long after the stop.',
  minutes: 10,
  cautions: [],
  optional: false,
  characteristics: ['cooling-time', 'cooling-time@rear'],
  feeds: { log: { needs: channels, uses: [], leastRows: 10, neededRate: 0.2 } },
  analyse: (trace, context) => joinAnswers(channels.map((channel) => answer(cooling(channel), trace, context))),
  limits: (_analysis, { unit, workshopLimits }) => {
    const most = limitFrom(
      { field: 'coolingTimeS', value: unit.half * 1.5 },
      { key: 'coolingTime', value: workshopLimits.coolingTime },
    );
    return [atMost('cooling-time', most), atMost('cooling-time@rear', most)];
  },
  pictures: [{ kind: 'over-time', channels }],
};

const kind: Kind<Spec, Disc, { drag: number }> = {
  family: 'disc-cooling',
  value: '',
  title: 'Disc cooling',
  description: 'Discs of both axles, logged after a stop',
  sheet: {
    schema,
    fields: [field('coolingTimeS', 'Time to half of its heat', 's', 'behaviour', { required: true })],
    example: { name: 'Ullerby disc', spec: { coolingTimeS: 200 } },
    prepare: ({ coolingTimeS }) => ({ half: coolingTimeS }),
  },
  model: {
    sound: () => ({ drag: 0 }),
    faults: [
      {
        id: 'brake-drags',
        title: 'Brake drags',
        shows: 'The disc stays warm.',
        appearance: {},
        tells: ['cooling'],
        leaves: [],
        extent: extentOf('Heat that it keeps, as a share', 'ratio', (condition) => condition.drag),
        apply: (condition, severity) => void (condition.drag = 0.2 + 0.7 * severity),
      },
    ],
    scatter: [],
    truth: ({ half }, { drag }) => ({ 'cooling-time': half / (1 - drag), 'cooling-time@rear': half / (1 - drag) }),
  },
  parts: [{ id: 'caliper', title: 'Caliper', faults: ['brake-drags'], affects: ['cooling'] }],
  diagram: { sketch: [{ path: 'M40 60 H280 V140 H40 Z', fill: 'body' }], at: { caliper: [160, 100] } },
  symptoms: [{ id: 'drags', title: 'A brake drags', of: { 'brake-drags': 'usually' } }],
  prevalence: {},
  plans: [
    {
      id: 'vehicle',
      title: 'After a drive',
      steps: ['cooling'],
      face: 'cooling',
      closing: [],
      conclusions: [],
      supply: null,
      lever: null,
    },
  ],
  steps: [step],
  curve: plainCurve({
    input: 'time',
    outputs: ['disc_temperature'],
    inputEnd: ({ half }) => 2 * half,
    band: () => [283, 500],
  }),
};

const disc = { dimension: 'temperature', fileUnit: '°C', words: ['disc', 'temperature', 'temp'] } as const;

export const discCooling: Family = {
  id: kind.family,
  title: kind.title,
  description: kind.description,
  toldBy: null,
  kinds: [kind],
  rows: {
    characteristics: {
      'cooling-time': { title: 'Time to half of its heat', unit: 's', as: 'time', dial: { kind: 'watch' } },
    },
    channels: {
      disc_temperature: { ...disc, title: 'Front disc' },
      disc_temperature_rear: { ...disc, title: 'Rear disc', words: [...disc.words, 'rear'] },
    },
    limits: { coolingTime: 400 },
  },
};
