import { plausibleRange } from '../../dials/plausible-range';
import { readingComponents, systematic } from '../../instruments/uncertainty';
import { nothingMeasured } from '../../procedure/analysis-result';
import { wait, type GuidePhase } from '../../procedure/guide-phase';
import type { Limit } from '../../procedure/limit';
import type { TypedEntry, TypedField } from '../../procedure/typed-entry';
import { analyseBackup, energyOf } from './backup-analysis';
import { bankEnergy, type ByWireUnit } from './geometry';
import { electricHazards, handsIn, keyOff, keyOn, type Context, type Measured } from './step-parts';

/** How long nothing flows before the load, s. */
export const restBeforeLoad = 5;
/** How long the load stays on, s, where a bank is emptied in a minute by it. */
const loaded = 25;
/** A hand reads watch and meter to this, s. */
const watchError = 0.5;

const figure = (
  id: string,
  title: string,
  hint: string,
  channel: 'backup_voltage' | 'backup_current',
  context: Context,
): TypedField => ({
  id,
  title,
  hint,
  as: channel === 'backup_voltage' ? 'voltage' : 'current',
  channel,
  expected: null,
  plausible: plausibleRange(channel === 'backup_voltage' ? 'voltage' : 'current', channel, context),
  optional: false,
});

/** Two meters and a watch: before the load, just after it came on, and at its end. */
const typedBackup: TypedEntry<ByWireUnit> = {
  fields: (context, values) => {
    const { bank } = context.unit;
    const { open } = values;
    const [firstVoltage, firstCurrent] = [values['first-voltage'], values['first-current']];
    const between = (low: number, high: number) => (low < high ? { low, high } : null);
    return [
      {
        ...figure('open', 'Before the load', 'Charger off, nothing drawn', 'backup_voltage', context),
        expected: bank && { low: 0.9 * bank.full, high: 1.05 * bank.full },
      },
      {
        ...figure('first-voltage', 'Load just on: voltage', 'As soon as the meters stand', 'backup_voltage', context),
        expected: open === undefined ? null : between(0.85 * open, open),
      },
      figure('first-current', 'Load just on: current', 'At the same moment', 'backup_current', context),
      {
        ...figure('last-voltage', 'At the end: voltage', 'Load still on', 'backup_voltage', context),
        expected: bank === null || firstVoltage === undefined ? null : between(bank.least, 0.95 * firstVoltage),
      },
      {
        ...figure('last-current', 'At the end: current', 'At the same moment', 'backup_current', context),
        expected: firstCurrent === undefined ? null : between(0.5 * firstCurrent, firstCurrent),
      },
      {
        id: 'seconds',
        title: 'Time between',
        hint: 'From the first pair of readings to the last',
        as: 'time',
        channel: null,
        expected: null,
        plausible: [1, 600],
        optional: false,
      },
    ];
  },
  analyse: (values, context) => {
    const ids = ['backup-energy', 'assisted-applications'] as const;
    const { bank } = context.unit;
    if (!bank) return nothingMeasured(ids, { code: 'no-bank-on-sheet' });
    const [open, firstVoltage, firstCurrent, lastVoltage, lastCurrent, seconds] = [
      values.open,
      values['first-voltage'],
      values['first-current'],
      values['last-voltage'],
      values['last-current'],
      values.seconds,
    ];
    const all = [open, firstVoltage, firstCurrent, lastVoltage, lastCurrent, seconds];
    if (all.some((each) => each === undefined)) return nothingMeasured(ids, { code: 'not-read' });
    const resistance = (open - firstVoltage) / firstCurrent;
    const fell = firstVoltage + firstCurrent * resistance - lastVoltage - lastCurrent * resistance;
    if (!(resistance >= 0)) return nothingMeasured(ids, { code: 'charger-still-on' });
    if (!(fell > 0)) return nothingMeasured(ids, { code: 'bank-hardly-fell', by: fell, needed: 0.05 * open });
    const capacitance = (((firstCurrent + lastCurrent) / 2) * seconds) / fell;
    const error = (channel: string, value: number) => {
      const meter = context.instruments.get(channel);
      return meter ? Math.hypot(...readingComponents(meter, value, context.date).map((part) => part.standard)) : 0;
    };
    const current = (firstCurrent + lastCurrent) / 2;
    return energyOf(bank, {
      open,
      capacitance,
      resistance,
      parts: [
        systematic('timing', watchError / seconds),
        systematic('gauge-gain', error('backup_current', current) / current),
        systematic('gauge-gain', (Math.SQRT2 * error('backup_voltage', firstVoltage)) / fell),
      ],
    });
  },
};

const loadOn: GuidePhase['controls'] = { ...keyOff, 'bank-load': 1 };

/** Energy that the backup bank has for stops without a battery. */
export const backup: Measured = {
  id: 'backup',
  kind: 'measured',
  title: 'Backup bank under load',
  why: 'Without a battery it brakes from its bank: charged, taken off the charger and loaded, it shows what it still holds.',
  minutes: 8,
  cautions: ['capacitor-bank', 'wakes-by-itself', 'service-mode'],
  optional: false,
  optionalFor: (unit) => unit.bank === null,
  characteristics: ['backup-energy', 'assisted-applications'],
  ...handsIn,
  brings: electricHazards,
  feeds: {
    log: { needs: ['backup_voltage', 'backup_current'], uses: ['ignition_on'], leastRows: 12, neededRate: 1 },
    live: {
      rate: 20,
      startsFrom: 'charged',
      guide: () => [
        wait({ code: 'charge-bank', seconds: 20 }, keyOn, 20),
        wait({ code: 'charger-off', seconds: restBeforeLoad }, keyOff, restBeforeLoad),
        wait({ code: 'load-bank', seconds: loaded }, loadOn, loaded),
        wait({ code: 'load-off' }, keyOff, 3),
      ],
      bands: ({ unit }) => ({ backup_voltage: unit.bank ? [unit.bank.least, unit.bank.full * 1.02] : [0, 1] }),
    },
    dials: typedBackup,
  },
  analyse: analyseBackup,
  limits: (_analysis, { unit: { bank } }): Limit[] => {
    if (!bank) return [];
    const least = (
      characteristic: 'backup-energy' | 'assisted-applications',
      low: number,
      expected: number,
    ): Limit => ({
      characteristic,
      low,
      high: null,
      expected,
      standard: 0,
      source: { kind: 'sheet', field: 'stopsMin' },
    });
    const full = bankEnergy(bank.capacitance, bank.full, bank.least);
    return [
      least('backup-energy', bank.stops * bank.energyPerStop, full),
      least('assisted-applications', bank.stops, Math.floor(full / bank.energyPerStop)),
    ];
  },
  pictures: [{ kind: 'over-time', channels: ['backup_voltage', 'backup_current'] }],
};
