import { discCooling } from '../../../tests/support/toy-family';
import { emptyShopFolder } from '../../../tests/support/shop';
import { bookOf, openWorkshop, person } from '../../../tests/support/workshop';
import { families, register } from '@/core/families';
import { readBenchLog, writeBenchLog } from '@/core/formats/bench-log';
import { writeEvaluation } from '@/core/formats/evaluation';
import { guessMapping } from '@/core/formats/guess-mapping';
import { readRawLog } from '@/core/formats/raw-log';
import { unitSheetJsonSchema } from '@/core/formats/unit-sheet';
import { conditionWith } from '@/core/contract/model';
import { packFrame } from '@/core/traces/frame';
import { makeTrace, type Trace } from '@/core/traces/trace';
import { displayUnits } from '@/core/wording/display';
import type { Job } from '@/data/jobs';
import { judgedJob } from '../judging/judged-job';
import { contextOf, sheetOf, siteNow } from '../context/job-context';
import { wholeFloor } from '../../../tests/support/whole-floor';
import { jobView } from '../views/job-view';
import { loadShop } from '../shop/shop-now';
import { sheetCards } from '../shop/sheet-cards';
import { reportOfJob } from '../views/build-report';
import { reportHtml } from '../paper/report-html';
import { reportPdf } from '../paper/report-pdf';
import { startRun } from './runs';
import { beginImport, closeImport, takeImportPart } from './import-log';

emptyShopFolder();
register(discCooling);
const [kind] = discCooling.kinds;

beforeAll(openWorkshop);

/** What a drive's logger writes of discs that cool by their own law, front and rear. */
function drive(halves: readonly [number, number], air: number): Trace {
  const time = Float64Array.from({ length: 1200 }, (_, at) => at);
  const disc = (half: number) => time.map((seconds) => air + 220 * 0.5 ** (seconds / half));
  return makeTrace(time, { disc_temperature: disc(halves[0]), disc_temperature_rear: disc(halves[1]) });
}

async function bring(job: Job, trace: Trace): Promise<void> {
  const channels = Object.keys(trace.columns);
  const file = { name: 'drive.csv', leftOut: [] };
  const form = { step: 'cooling', person, file, fingerprint: 'drive', mapping: [], confirmed: channels };
  const { id } = await beginImport(job.id, form);
  await takeImportPart(id, { sequence: 0, bytes: packFrame(trace) });
  await closeImport(id);
}

const halvesWith = (severity: number): [number, number] => {
  const unit = { half: 200 };
  const { drag } = conditionWith(kind.model, unit, [{ id: 'brake-drags', severity }]) as { drag: number };
  return [200, 200 / (1 - drag)];
};

describe('a family that is registered with one line', () => {
  it('is known, with a schema of its own', () => {
    expect(families.map(({ id, title }) => ({ id, title }))).toContainEqual({
      id: 'disc-cooling',
      title: discCooling.title,
    });
    expect(unitSheetJsonSchema(discCooling)).toMatchObject({ properties: { family: { const: 'disc-cooling' } } });
  });

  it('is booked in, brought a log, judged at each of its places, seen on the floor and printed', async () => {
    const job = await bookOf('disc-cooling', 'vehicle', 'UL-D-1');
    const air = contextOf(job, await siteNow(), job.bookedAt).airTemperature;
    await bring(job, drive(halvesWith(0.5), air));
    const { evaluation } = (await judgedJob(job.id)).evaluated;
    const [step] = evaluation.steps;
    const verdicts = Object.fromEntries(step.checks.map((check) => [check.characteristic, check.verdict.kind]));
    expect(verdicts).toEqual({ 'cooling-time': 'pass', 'cooling-time@rear': 'fail' });

    const report = await reportOfJob(job.id, {
      kind: 'findings-only',
      issuedAt: '2026-11-23T12:00:00Z',
      issuedBy: person,
      units: displayUnits('kpa'),
    });
    expect(report.steps[0].rows.map((row) => row.name)).toEqual([
      'Time to half of its heat',
      'Time to half of its heat, rear',
    ]);
    expect(report.picture?.svg).toContain('<svg');
    expect(report.picture?.text).toContain('Front disc and Rear disc');
    expect(reportHtml(report)).toContain('Rear disc');
    expect(Buffer.from(await reportPdf(report)).toString('latin1', 0, 5)).toBe('%PDF-');

    expect(JSON.stringify(await wholeFloor())).toContain('UL-D-1');
    expect((await jobView(job.id)).verdict).toBe('fail');
    expect((await sheetCards(await loadShop())).map((card) => card.familyTitle)).toContain('Disc cooling');
    expect(writeEvaluation(evaluation)).toMatchObject({
      steps: [{ characteristics: { 'cooling-time': { unit: 's' }, 'cooling-time-2': { unit: 's' } } }],
    });
  });

  it('passes a sound one, and says what a cold one cannot show', async () => {
    const sound = await bookOf('disc-cooling', 'vehicle', 'UL-D-2');
    const air = contextOf(sound, await siteNow(), sound.bookedAt).airTemperature;
    await bring(sound, drive([200, 200], air));
    expect((await judgedJob(sound.id)).evaluated.evaluation.verdict).toBe('pass');
    const cold = await bookOf('disc-cooling', 'vehicle', 'UL-D-3');
    await bring(cold, drive([200, 200], air - 210));
    expect((await judgedJob(cold.id)).evaluated.evaluation.verdict).toBe('undecided');
  });

  it('its model’s truth is what its step finds', async () => {
    const job = await bookOf('disc-cooling', 'vehicle', 'UL-D-4');
    const context = contextOf(job, await siteNow(), job.bookedAt);
    const { unit } = sheetOf(job);
    const truth = kind.model.truth(unit, kind.model.sound(unit), context) as Record<string, number>;
    const step = kind.steps[0];
    if (step.kind !== 'measured') throw new Error('cooling is measured');
    for (const found of step.analyse(drive([200, 200], context.airTemperature), context).characteristics) {
      if (found.kind !== 'measured') throw new Error(`${found.id} was not measured`);
      expect(Math.abs(found.estimate.value - truth[found.id])).toBeLessThan(2);
    }
  });

  it('no bench runs it, and that is said', async () => {
    const job = await bookOf('disc-cooling', 'vehicle', 'UL-D-5');
    await expect(startRun(job.id, 'cooling', person)).rejects.toThrow('bring a log of it');
  });

  it('its channels are written to bench logs and known by their words in others', () => {
    const trace = drive([200, 220], 284);
    const needs = { step: 'cooling', needs: ['disc_temperature', 'disc_temperature_rear'], leastRows: 10 };
    const read = readBenchLog(writeBenchLog(trace, {}), 'drive.csv', needs);
    if (!read.ok) throw new Error(JSON.stringify(read.problems));
    expect(read.value.trace.columns.disc_temperature_rear[100]).toBeCloseTo(
      trace.columns.disc_temperature_rear[100],
      3,
    );
    const raw = readRawLog('t [s],Disc temp [°C],Rear disc temp [°C]\n0,200,190\n1,199,189\n2,198,188\n', 'x.csv');
    if (!raw.ok) throw new Error(JSON.stringify(raw.problems));
    const guesses = guessMapping(raw.value, needs.needs, 101_325);
    expect(guesses.map(({ mapped }) => (mapped.use === 'channel' ? mapped.channel : mapped.use))).toEqual([
      'time',
      'disc_temperature',
      'disc_temperature_rear',
    ]);
  });
});
