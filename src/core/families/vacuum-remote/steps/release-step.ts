import { releaseEntry } from '../../../toolboxes/analysis/release-entry';
import { atMost, limitFrom } from '../../../procedure/limit';
import { analyseRelease, type ReleaseOptions } from '../../../toolboxes/analysis/release-analysis';
import type { MeasuredStep } from '../../../procedure/step-definition';
import type { StepContext } from '../../../procedure/step-context';
import type { RemoteUnit } from '../unit/remote-unit';
import { appliedInput, pullAndShut, rest, supplyOn } from './step-parts';

/** What a layout lets go of, and how much of it may stay. */
export interface Release<Unit extends RemoteUnit> {
  readonly channel: 'output_pressure' | 'rod_force';
  readonly residual: 'residual-output' | 'servo-residual';
  readonly output: Pick<ReleaseOptions, 'output'>;
  readonly limit: (context: StepContext<Unit>) => ReturnType<typeof limitFrom>;
  readonly why: string;
}

/** Release at once and drain. */
export function releaseStep<Unit extends RemoteUnit>(layout: Release<Unit>): MeasuredStep<Unit> {
  const { channel, residual } = layout;
  return {
    id: 'release',
    kind: 'measured',
    title: 'Release and drain',
    why: layout.why,
    minutes: 2,
    cautions: ['brake-fluid', 'stored-vacuum'],
    optional: false,
    characteristics: ['release-time', residual],
    feeds: {
      log: {
        needs: [channel, 'input_pressure'],
        uses: ['supply_vacuum'],
        leastRows: 30,
      },
      live: {
        startsFrom: 'evacuated',
        guide: (context) => {
          const pressure = appliedInput(context);
          return [
            rest(1.5, supplyOn),
            pullAndShut(pressure, 4, supplyOn),
            {
              instruction: { code: 'let-go', channel: 'input_pressure' },
              controls: supplyOn,
              lever: { to: 0, seconds: 0 },
              end: { kind: 'input-below', level: 30_000 },
            },
            rest(5, supplyOn),
          ];
        },
        bands: (context) => {
          const { value } = layout.limit(context);
          return { [channel]: [-0.3 * value, value] };
        },
      },
      dials: releaseEntry({ output: channel, residual }),
    },
    analyse: (trace, context) =>
      analyseRelease(trace, context, {
        lever: 'input_pressure',
        residualLimit: layout.limit(context).value,
        ...layout.output,
      }),
    limits: (_analysis, context) => {
      const time = limitFrom(
        { field: 'releaseTimeMaxS', value: context.unit.spec.releaseTimeMaxS },
        { key: 'releaseTime', value: context.workshopLimits.releaseTime },
      );
      return [atMost('release-time', time), atMost(residual, layout.limit(context), { expected: 0 })];
    },
    pictures: [{ kind: 'over-time', channels: [channel, 'input_pressure'] }],
  };
}
