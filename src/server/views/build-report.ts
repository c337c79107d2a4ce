import { conclusionAdvice } from '@/core/wording/conclusion-text';
import { methodVersion } from '@/core/judging/method-version';
import { optionTitle, writtenKey } from '@/core/procedure/look-step';
import { heavy } from '../threads/pool';
import type { PaperFace } from '../paper/paper-face';
import { asDials } from '@/core/dials/default-dial';
import { entryOf } from '@/core/dials/characteristic-entry';
import { planOf } from '@/core/contract/kind';
import type { Characteristic } from '@/core/procedure/step-analysis';
import type { StepContext } from '@/core/procedure/step-context';
import type { Report } from '@/core/formats/report';
import { expandedUncertainty } from '@/core/instruments/uncertainty';
import { calibrationState, type Instrument } from '@/core/instruments/instrument';
import { correctionsBefore, remarksOf, type StepEvaluation, type UnitEvaluation } from '@/core/judging/evaluate-unit';
import { concludeInquiry } from '@/core/judging/conclude-inquiry';
import type { DecisionPolicy } from '@/core/vocabulary/verdict';
import { fromSi, unitOf } from '@/core/quantities/measurement-unit';
import { shopTime } from '@/core/wording/shop-time';
import { cautions, standingCautions } from '@/core/wording/cautions';
import type { CautionId } from '@/core/vocabulary/caution-id';
import { figure, referenceOf, shownUnit, foundSize, withUnit, type DisplayUnits } from '@/core/wording/display';
import { shownAs } from '@/core/quantities/shown-as';
import { analysisProblemText } from '@/core/wording/problem-text';
import { characteristicTitle } from '@/core/quantities/characteristics';
import { limitSourceText, limitText } from '@/core/wording/check-text';
import type { Act } from '@/data/acts';
import type { JobRecord } from '@/data/job-record';
import type { Job } from '@/data/jobs';
import { isStandIn, type Run } from '@/data/runs';
import type { JudgedStep } from '@/core/judging/evaluate-unit';
import { ledgerOr } from '../judging/job-ledger';
import { verificationState } from '../judging/verification-state';
import { findingsOf, repairsOf } from './report-findings';
import { speaksNow } from '../context/rounds';
import type { JobEvaluation } from '../judging/evaluate-job';
import { locksOf } from '../judging/interlocks';
import { judgedJob } from '../judging/judged-job';
import type { Shop } from '../shop/shop-now';
import { isOfStep } from '../context/answered-steps';
import { contextOf, sheetOf } from '../context/job-context';

function readingText(found: Characteristic, units: DisplayUnits): string {
  const as = shownAs(found.id);
  const unit = shownUnit(as, units, foundSize(found));
  const symbol = [unit.symbol === '1' ? '' : unit.symbol, referenceOf(as)].filter(Boolean).join(' ');
  switch (found.kind) {
    case 'measured':
      return `${figure(found.estimate.value, unit, expandedUncertainty(found.estimate))} ${symbol}`.trim();
    case 'beyond':
      return `${found.side === 'above' ? 'beyond' : 'below'} ${withUnit(found.bound.value, as, units)}`;
    case 'absent':
      return analysisProblemText(found.problem, units);
  }
}

function rowsOf(step: StepEvaluation, units: DisplayUnits): Report['steps'][number]['rows'] {
  return step.characteristics.map((found) => {
    const check = step.checks.find((each) => each.characteristic === found.id);
    return {
      name: characteristicTitle(found.id),
      reading: readingText(found, units),
      limit: check ? limitText(check, units, found) : 'no limit',
      limitSource: check ? limitSourceText(check.limit.source) : '',
      verdict: check ? check.verdict.kind : 'recorded',
    };
  });
}

function instrumentRow(instrument: Instrument, date: string): Report['instruments'][number] {
  const state = calibrationState(instrument, date);
  const percent = `${Number((instrument.classFraction * 100).toPrecision(3))} % of ${instrument.classOf === 'reading' ? 'reading' : 'full scale'}`;
  const calibration =
    state.kind === 'unknown'
      ? 'calibration not on record'
      : state.kind === 'overdue'
        ? `overdue since ${state.dueOn}; its error is counted double`
        : `in date until ${state.dueOn}`;
  return { name: instrument.name, accuracy: percent, calibration, overdue: state.kind === 'overdue' };
}

function findingRows(job: Job, step: StepEvaluation): Report['steps'][number]['rows'] {
  const definition = sheetOf(job).kind.steps.find((each) => each.id === step.step);
  if (definition?.kind !== 'look' || !step.findings) return [];
  return definition.feeds.look.points.map((point) => {
    const option = definition.feeds.look.options.find((each) => each.id === step.findings?.[point.id]);
    return {
      name: point.title,
      reading: [option ? optionTitle(point, option) : 'not looked at', step.findings?.[writtenKey(point.id)]]
        .filter(Boolean)
        .join(': '),
      limit: '',
      limitSource: '',
      verdict: option?.effect === 'fail' ? 'fail' : option ? 'recorded' : 'not-run',
    };
  });
}

/** The unit's face for its paper; nothing where the step was not done, or not recorded. */
async function faceOf(job: Job, { evaluation, runs }: JobEvaluation, units: DisplayUnits): Promise<PaperFace> {
  const nothing = { curve: null, picture: null };
  const { face } = planOf(sheetOf(job).kind, job.plan);
  const run = runs.filter((each) => isOfStep(job, each, face) && each.state === 'kept' && !each.struckOut).at(-1);
  if (!run || run.readings || run.findings) return nothing;
  const evaluated = evaluation.steps.find((step) => step.step === face);
  if (!evaluated || evaluated.analyses.length === 0) return nothing;
  const corrections = correctionsBefore(evaluation.steps, face);
  return heavy('paperFace', { runId: run.id, evaluated, corrections, units });
}

function airLines(context: ReturnType<typeof contextOf>, site: Run['context']['site']): string[] {
  const source = {
    'station-barometer': 'station barometer',
    'standard-atmosphere': `standard atmosphere at ${site.altitudeM} m`,
    'sea-level-assumed': 'sea level assumed',
  }[context.ambient.source];
  return [
    `${figure(context.ambient.pressure, unitOf('kPa'))} kPa absolute (${source})`,
    `${fromSi(context.airTemperature, unitOf('°C')).toFixed(0)} °C`,
  ];
}

function decisionText(policy: DecisionPolicy): string {
  return policy === 'guarded'
    ? 'Guarded decisions: a reading passes or fails only with its whole uncertainty (U, about 95 %) on one side of the limit.'
    : 'Simple acceptance: readings are compared with the limits as they stand; uncertainty is stated beside them.';
}

const leastVacuumTexts = {
  both: 'Least vacuum by both schools: 16 inHg at the sea, marginal below 18.',
  sixteen: 'Least vacuum by the school of 16 inHg at the sea.',
  eighteen: 'Least vacuum by the school of 18 inHg at the sea.',
} as const;

/** The schools that decided anything about this unit. */
function schoolTexts(evaluation: UnitEvaluation, context: StepContext<unknown>): string[] {
  const judged = evaluation.steps.flatMap((step) => step.checks);
  return judged.some((check) => check.limit.restatedFrom !== undefined)
    ? [`${leastVacuumTexts[context.schools.leastVacuum]} Restated for the air of the day.`]
    : [];
}

function conclusionOf(job: Job, evaluation: UnitEvaluation): Report['conclusion'] {
  const { kind } = sheetOf(job);
  const state = concludeInquiry(planOf(kind, job.plan), evaluation);
  if (state.kind === 'open') return null;
  const { title } = state.conclusion;
  return { title, advice: conclusionAdvice(state.conclusion, state.felt, kind.steps) };
}

/** How a run came by its readings. */
function sourceText(context: Run['context']): string {
  const standIn = isStandIn(context) ? ' from a stand-in rig' : '';
  switch (context.source) {
    case 'stand-in rig':
      return 'measured by a stand-in rig';
    case 'looked at':
      return 'looked at';
    case 'dial readings':
      return `read off dials${standIn}`;
    case 'log file': {
      const out = context.file?.leftOut.length ?? 0;
      const left = out === 0 ? '' : `, ${out} ${out === 1 ? 'row' : 'rows'} left out`;
      return `log file ${context.file?.name ?? ''}${left}${standIn}`;
    }
  }
}

/** Channels that the steps done so far were read on: by instruments, or by somebody off dials; the lever of another plan is none. */
function channelsUsed(job: Job, runs: readonly Run[], context: StepContext<unknown>) {
  const { kind } = sheetOf(job);
  const { lever, steps } = planOf(kind, job.plan);
  const others = kind.plans.flatMap((plan) => plan.lever?.channel ?? []).filter((each) => each !== lever?.channel);
  const by = (counts: (run: Run) => boolean, channelsOf: (step: JudgedStep) => readonly (string | null)[]) =>
    new Set(
      kind.steps
        .filter((step): step is JudgedStep => step.kind !== 'look' && steps.includes(step.id))
        .filter((step) => runs.some((run) => isOfStep(job, run, step.id) && run.state === 'kept' && counts(run)))
        .flatMap(channelsOf)
        .filter((channel): channel is string => channel !== null && !others.includes(channel)),
    );
  const fieldsOf = (step: JudgedStep) =>
    entryOf(step)
      .fields(context, {})
      .map((field) => field.channel);
  const byHand = (run: Run) => run.readings !== null && !isStandIn(run.context);
  return {
    recorded: by(
      (run) => !byHand(run),
      (step) => (step.kind === 'measured' ? [...step.feeds.log.needs, ...step.feeds.log.uses] : fieldsOf(step)),
    ),
    read: by(byHand, fieldsOf),
  };
}

export interface IssueDetails {
  readonly kind: Report['kind'];
  readonly issuedAt: string;
  readonly issuedBy: string;
  readonly units: DisplayUnits;
}

/** A run that does not count, with who made it, who struck it out and why. */
function struckText(run: Run, acts: readonly Act[]): string {
  const by = acts.findLast((each) => each.subject === run.id && each.act === 'struck-out')?.person;
  return `One run by ${run.person} struck out${by ? ` by ${by}` : ''}: ${run.struckOut}`;
}

/** The report of a job as it would be issued now. */
export async function reportOfJob(jobId: string, how: IssueDetails): Promise<Report> {
  const { record, shop, evaluated } = await judgedJob(jobId);
  return buildReport(record, shop, how, evaluated);
}

/** The report of a job as it stands, in the units it is issued in. */
export async function buildReport(
  record: JobRecord,
  shop: Shop,
  how: IssueDetails,
  evaluated: JobEvaluation,
): Promise<Report> {
  const { job, acts, cautions: acknowledged } = record;
  const { settings } = shop;
  const { evaluation, runs } = evaluated;
  const { kind, unit } = sheetOf(job);
  const locks = await locksOf(record, { shop, evaluated });
  const { ledger } = await ledgerOr(record, { shop, evaluated, locks });
  const last = runs.filter((run) => run.state === 'kept' && run.context.source !== 'looked at').at(-1);
  const site = last?.context.site ?? { ...settings.site };
  const context = contextOf(job, site, last?.startedAt ?? how.issuedAt);
  const used = channelsUsed(job, runs, context);
  const fluid = (unit as { spec?: { fluid?: string } }).spec?.fluid ?? '';
  return {
    format: 'hard-pedal/report',
    version: 1,
    methodVersion,
    kind: how.kind,
    shop: settings.shopName,
    timeZone: shop.zone,
    job: {
      number: job.number,
      serial: job.serial,
      unit: job.sheet.name,
      family: kind.title,
      vehicle: job.vehicle,
      complaint: job.complaint,
      symptoms: kind.symptoms.filter(({ id }) => job.symptoms.includes(id)).map(({ title }) => title),
      bookedAt: job.bookedAt,
      fluid,
    },
    issuedAt: how.issuedAt,
    issuedBy: how.issuedBy,
    verdict: evaluation.verdict,
    conclusion: conclusionOf(job, evaluation),
    findings: findingsOf(kind, ledger, evaluated, how.units),
    ...repairsOf(kind, evaluated, verificationState(job, evaluated), how.units),
    policy: [decisionText(settings.policy), ...schoolTexts(evaluation, context)].join(' '),
    air: airLines(context, site),
    standIn: runs.some((run) => run.state === 'kept' && isStandIn(run.context)),
    instruments: [
      ...[...context.instruments.values()].filter((each) => used.recorded.has(each.channel)),
      // What a person read is credited to no transducer: to the dial that was named, or to an ordinary one.
      ...[...asDials(context.instruments).values()].filter(
        (each) =>
          used.read.has(each.channel) &&
          !(used.recorded.has(each.channel) && context.instruments.get(each.channel) === each),
      ),
    ].map((each) => instrumentRow(each, context.date)),
    steps: evaluation.steps.map((step) => {
      const definition = kind.steps.find((each) => each.id === step.step);
      const run = runs
        .filter((each) => isOfStep(job, each, step.step) && each.state === 'kept' && speaksNow(each, evaluated))
        .at(-1);
      const struck = runs.filter((each) => isOfStep(job, each, step.step) && each.struckOut !== null);
      return {
        title: definition?.title ?? step.step,
        verdict: step.verdict,
        who: run?.person ?? '',
        when: run?.startedAt ?? '',
        source: run === undefined ? '' : sourceText(run.context),
        rows: definition?.kind === 'look' ? findingRows(job, step) : rowsOf(step, how.units),
        notes: [
          ...remarksOf(step).map((remark) => analysisProblemText(remark, how.units)),
          ...struck.map((each) => struckText(each, acts)),
        ],
      };
    }),
    ...(await faceOf(job, evaluated, how.units)),
    cautions: [...standingCautions],
    acknowledged: acknowledged.map(
      (each) =>
        `${each.person}, ${shopTime(each.at, 'paper', shop)}: ${cautions[each.caution as CautionId] ?? each.caution}`,
    ),
  };
}
