import { liveFeed } from '../procedure/step-definition';
import type { ZodObject } from 'zod';
import type { AnyKind } from '../contract/kind';
import { readBenchLog, writeBenchLog } from '../formats/bench-log';
import { evaluateUnit, type StepEvidence } from '../judging/evaluate-unit';
import { simulateStep } from '../rig/run-step';
import { sampledLog } from '../procedure/sampled-log';
import { families, findFamily } from '.';
import { entryOf } from '../dials/characteristic-entry';
import { characteristicRow, characteristicTitle } from '../quantities/characteristics';
import { findChannel } from '../quantities/channels';
import { unitOf } from '../quantities/measurement-unit';
import { cautions } from '../wording/cautions';
import { displayUnitSets } from '../wording/display';
import { instructionText } from '../wording/instruction-text';
import { contextAt } from '../formats/site-file';
import { checkKind } from '../formats/unit-sheet';

const everyLayout = families
  .flatMap((family) => family.kinds)
  .map((kind) => [kind.value === '' ? kind.family : `${kind.family}: ${kind.description}`, kind] as const);

/** A choice is one that the sheet takes, or one that leads on to another layout's sheet. */
function saysOrLeadsOn(kind: AnyKind, field: string, value: string): boolean {
  const { toldBy, kinds } = findFamily(kind.family)!;
  if (toldBy === field) return kinds.some((each) => each.value === value);
  return (kind.sheet.schema as ZodObject).shape[field].safeParse(value).success;
}

describe.each(everyLayout)('%s: is complete', (_id, kind) => {
  const checked = checkKind(kind, kind.sheet.example.name, kind.sheet.example.spec, 'example');
  if (!checked.ok) throw new Error('the example is not valid');
  const context = contextAt(checked.value, { altitudeM: 1420 }, '2026-11-23');

  it('has words, cautions and units for every step', () => {
    for (const step of kind.steps) {
      expect(step.title).not.toBe('');
      expect(step.why.length).toBeGreaterThan(20);
      expect(step.minutes).toBeGreaterThan(0);
      for (const caution of step.cautions) expect(cautions[caution]).toBeDefined();
      for (const id of step.characteristics) {
        expect(characteristicTitle(id)).toBeDefined();
        expect(unitOf(characteristicRow(id).unit)).toBeDefined();
      }
      if (step.kind === 'look') {
        expect(step.feeds.look.points.length).toBeGreaterThan(2);
        expect(step.feeds.look.sketch.length).toBeGreaterThan(3);
        for (const { at } of step.feeds.look.points) {
          expect(at[0]).toBeGreaterThan(0);
          expect(at[0]).toBeLessThan(320);
          expect(at[1]).toBeGreaterThan(0);
          expect(at[1]).toBeLessThan(200);
        }
      } else if (step.kind === 'measured')
        for (const channel of [...step.feeds.log.needs, ...step.feeds.log.uses])
          expect(findChannel(channel)).toBeDefined();
    }
  });

  it('has a form field for everything that its sheet may say, with a choice for every word', () => {
    const { shape } = kind.sheet.schema as ZodObject;
    expect(kind.sheet.fields.map((field) => field.name).sort()).toEqual(Object.keys(shape).sort());
    for (const field of kind.sheet.fields) {
      const asks = shape[field.name];
      const takesFigures = [0.5, 1, 3].some((figure) => asks.safeParse(figure).success);
      const asksFigure = field.choices === undefined && !field.text;
      expect([field.name, asksFigure]).toEqual([field.name, takesFigures]);
      for (const choice of field.choices ?? [])
        expect([field.name, choice.value, saysOrLeadsOn(kind, field.name, choice.value)]).toEqual([
          field.name,
          choice.value,
          true,
        ]);
      if (field.name === 'layout') continue;
      const needed = !asks.safeParse(undefined).success;
      expect([field.name, field.required]).toEqual([field.name, needed]);
    }
  });

  it('lists every step once, in a plan', () => {
    const ids = kind.steps.map((step) => step.id);
    expect(new Set(ids).size).toBe(ids.length);
    for (const plan of kind.plans) for (const id of plan.steps) expect(ids).toContain(id);
  });

  it('draws every part on its diagram, none upon another', () => {
    const { at, sketch } = kind.diagram;
    expect(sketch.length).toBeGreaterThan(3);
    const places = kind.parts.map((part) => at[part.id]);
    for (const place of places) {
      expect(place).toBeDefined();
      expect([place[0] > 10, place[0] < 310, place[1] > 10, place[1] < 190]).toEqual([true, true, true, true]);
    }
    places.forEach((a, i) =>
      places.slice(i + 1).forEach((b, j) => {
        const apart = Math.hypot(a[0] - b[0], a[1] - b[1]);
        expect([kind.parts[i].id, kind.parts[i + 1 + j].id, apart >= 22]).toEqual([
          kind.parts[i].id,
          kind.parts[i + 1 + j].id,
          true,
        ]);
      }),
    );
  });

  it('draws in its pictures only what its steps read, and on its plans only what is known', () => {
    for (const step of kind.steps) {
      if (step.kind !== 'measured') continue;
      const read = [...step.feeds.log.needs, ...step.feeds.log.uses];
      for (const picture of step.pictures) {
        // What a curve is worked out of is its own affair.
        if (picture.kind === 'curve' && picture.workedOut) continue;
        const drawn =
          picture.kind === 'curve'
            ? [picture.input, ...picture.outputs]
            : picture.kind === 'over-time'
              ? picture.channels
              : [];
        for (const channel of drawn)
          expect([step.id, channel, read]).toEqual([step.id, channel, expect.arrayContaining([channel])]);
      }
    }
    for (const plan of kind.plans) {
      for (const channel of [plan.supply?.channel, plan.lever?.channel])
        if (channel !== undefined) expect(findChannel(channel)).toBeDefined();
      expect(plan.steps).toContain(plan.face);
    }
  });

  it('reads its figures off the dials that its steps are recorded with', () => {
    for (const step of kind.steps) {
      if (step.kind !== 'measured' || step.feeds.dials) continue;
      const read = [...step.feeds.log.needs, ...step.feeds.log.uses];
      for (const { id, channel } of entryOf(step).fields(context, {}))
        if (channel !== null)
          expect([step.id, id, channel, read]).toEqual([step.id, id, channel, expect.arrayContaining([channel])]);
    }
  });

  it('words every instruction in every set of measurement units', () => {
    for (const step of kind.steps)
      if (step.kind === 'measured' && step.feeds.live)
        for (const phase of liveFeed(step).guide(context))
          for (const units of displayUnitSets) expect(instructionText(phase.instruction, units)).toMatch(/^[A-Z]/);
  });

  it('describes every fault, and its appearance names points and options that exist', () => {
    const looks = kind.steps.filter((step) => step.kind === 'look');
    for (const fault of kind.model.faults) {
      expect(fault.shows.length).toBeGreaterThan(20);
      for (const [point, option] of Object.entries(fault.appearance)) {
        const step = looks.find((look) => look.feeds.look.points.some((each) => each.id === point));
        expect({ fault: fault.id, point, found: step !== undefined }).toEqual({ fault: fault.id, point, found: true });
        expect(step?.feeds.look.options.map((each) => each.id)).toContain(option);
      }
    }
  });

  it.each(kind.plans.map((plan) => [plan.id, plan] as const))(
    'a sound example passes every measured step of the %s plan, by way of bench logs',
    (planId, plan) => {
      const there = contextAt(checked.value, { altitudeM: 1420, benchVolumeCm3: 600 }, '2026-11-23', planId);
      const evidence = plan.steps.flatMap((id): StepEvidence[] => {
        const step = kind.steps.find((each) => each.id === id);
        if (step?.kind !== 'measured') return [];
        const trace = simulateStep(kind, step, there, { faults: [], benchSeed: 11, runSeed: 12 });
        // Only a scan tool repeats what it last heard.
        for (const each of step.feeds.log.ownSensors ? [] : sampledLog(trace).said)
          expect(each).toMatchObject({ code: 'written-over', between: 'again', channels: ['reservoir_vacuum'] });
        for (const note of step.feeds.log.ownSensors ? step.analyse(trace, there).notes : [])
          if (note.code === 'column-rate') expect([note.channels, note.over]).toEqual([note.channels, null]);
        const log = readBenchLog(writeBenchLog(trace, {}), `${id}.csv`, {
          step: id,
          needs: step.feeds.log.needs,
          leastRows: step.feeds.log.leastRows,
        });
        if (!log.ok) throw new Error(JSON.stringify(log.problems));
        return [{ kind: 'traces', step: id, traces: [log.value.trace] }];
      });
      const { steps } = evaluateUnit(kind, plan.steps, evidence, { context: there, policy: 'guarded' });
      for (const { step } of evidence) {
        const found = steps.find((each) => each.step === step);
        expect([step, found?.verdict === 'pass' || found?.verdict === 'recorded']).toEqual([step, true]);
      }
    },
    60_000,
  );
});
