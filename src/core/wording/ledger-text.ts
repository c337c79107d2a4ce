import type { AnyKind } from '../contract/kind';
import type { SeverityFit } from '../diagnosis/fit-severity';
import type { FaultExtent, Ledger, LedgerRow } from '../diagnosis/ledger';
import { faultsOf, hypothesisId, type Hypothesis } from '../diagnosis/hypothesis';
import type { Finding } from '../diagnosis/laid-out';
import type { NextTest } from '../diagnosis/next-test';
import type { Weighed } from '../diagnosis/rank';
import type { StepEvaluation } from '../judging/evaluate-unit';
import type { Check } from '../judging/judge-step';
import { expandedUncertainty } from '../instruments/uncertainty';
import { optionTitle } from '../procedure/look-step';
import type { Characteristic } from '../procedure/step-analysis';
import { characteristicTitle } from '../quantities/characteristics';
import { shownAs } from '../quantities/shown-as';
import { limitText } from './check-text';
import { figure, shownUnit, foundSize, type DisplayUnits } from './display';
import { inSentence } from './in-sentence';
import { analysisProblemText } from './problem-text';

/** What a hypothesis is called. */
export function hypothesisTitle(kind: AnyKind, hypothesis: Hypothesis): string {
  switch (hypothesis.kind) {
    case 'no-fault':
      return 'Nothing is wrong with it';
    case 'not-in-this-list':
      return 'Something that is not in this list';
    default:
      return faultsOf(hypothesis)
        .map((id) => kind.model.faults.find((fault) => fault.id === id)?.title ?? id)
        .map((title, at) => (at === 0 ? title : inSentence(title)))
        .join(' and ');
  }
}

/** From here on a ranking that was held against nothing but its own models only leads. */
const leads = 0.9;

/** Whether what is said of something is that it leads, in place of how likely it is. */
export const onlyLeads = (probability: number, { borneOut }: Pick<Ledger, 'borneOut'>): boolean =>
  !borneOut && probability > leads;

/** "92 %"; never certain, and never nothing. What is likeliest on a plan whose ranking nothing bears out leads, and no more. */
export function probabilityText(probability: number, ledger: Pick<Ledger, 'borneOut'>): string {
  if (onlyLeads(probability, ledger)) return 'leads, not certain';
  if (probability > 0.99) return 'over 99 %';
  if (probability < 0.01) return 'under 1 %';
  return `${Math.round(probability * 100)} %`;
}

const extentWords: Readonly<Record<FaultExtent['tells'], string>> = {
  about: 'about',
  'more-than': 'more than',
  'less-than': 'less than',
};

/** "Leak through the vacuum valve: 380 ± 60 cm3/min". */
export function extentText({ title, as, tells, value, expanded }: FaultExtent, units: DisplayUnits): string {
  const unit = shownUnit(as, units, value);
  const symbol = unit.symbol === '1' ? '' : ` ${unit.symbol}`;
  const amount = figure(value, unit, tells === 'about' ? expanded : null);
  return `${title}: ${extentWords[tells]} ${amount}${symbol}`;
}

const beyondText: Readonly<Record<SeverityFit['lies'], string>> = {
  inside: '',
  'at-the-least': ', or less: the model was tried no further',
  'at-the-most': ', or more: the model was tried no further',
};

/** Why the severity of a fault is fitted to what was measured, or is not. */
export type Fitting = 'asked' | 'two-at-once' | 'hardly-likely';

const unfittedText: Readonly<Record<Exclude<Fitting, 'asked'>, string>> = {
  'two-at-once': 'Drawn as severe as they most likely are: only a fault that stands alone is fitted.',
  'hardly-likely': 'Drawn as severe as it most likely would be: it is not likely enough to be fitted.',
};

/** How severe a fault is that is drawn, and where that comes from. */
export function fitText(
  fit: SeverityFit | null,
  fitting: Fitting,
  stepsNamed: (steps: readonly string[]) => string,
  units: DisplayUnits,
): string {
  if (fitting !== 'asked') return unfittedText[fitting];
  if (!fit) return 'Drawn as severe as it most likely is: nothing that was measured tells how much of it there is.';
  const by = `Fitted to ${stepsNamed(fit.steps)}, on this sheet and in the air of the day`;
  if (!fit.extent) return `${by}; no amount of it can be told.`;
  return `${by}: ${inSentence(extentText(fit.extent, units))}${fit.extent.tells === 'about' ? beyondText[fit.lies] : ': the model was tried no further'}.`;
}

/** What a finding was, by its step: the figure that says most, beside what it was held against. */
export function findingText(
  kind: AnyKind,
  finding: Finding,
  steps: readonly StepEvaluation[],
  units: DisplayUnits,
): { readonly title: string; readonly said: string } {
  switch (finding.kind) {
    case 'step': {
      const step = steps.find((each) => each.step === finding.step);
      const title = kind.steps.find((each) => each.id === finding.step)?.title ?? finding.step;
      return { title, said: step ? stepSaid(step, units) : '' };
    }
    case 'point': {
      const step = kind.steps.find((each) => each.id === finding.step);
      if (step?.kind !== 'look') return { title: finding.step, said: finding.option };
      const { points, options } = step.feeds.look;
      const point = points.find((each) => each.id === finding.point);
      const option = options.find((each) => each.id === finding.option);
      const found = point && option ? optionTitle(point, option) : finding.option;
      return { title: step.title, said: `${point?.title ?? finding.point}: ${inSentence(found)}` };
    }
    case 'symptom': {
      const title = kind.symptoms.find((each) => each.id === finding.symptom)?.title ?? finding.symptom;
      return { title: 'The driver', said: finding.said ? title : `says nothing of “${inSentence(title)}”` };
    }
  }
}

/** Failing figures say most, then those that are undecided, then the first. */
const loudest: readonly Check['verdict']['kind'][] = ['fail', 'undecided', 'pass'];

function stepSaid({ checks, characteristics }: StepEvaluation, units: DisplayUnits): string {
  const sorted = checks.toSorted((a, b) => loudest.indexOf(a.verdict.kind) - loudest.indexOf(b.verdict.kind));
  const check = sorted.at(0);
  const found = characteristics.find((each) => !check || each.id === check.characteristic);
  if (!found) return '';
  const limit = check ? `, ${limitText(check, units, found)}` : '';
  return `${inSentence(characteristicTitle(found.id))} ${characteristicSaid(found, units)}${found.kind === 'absent' ? '' : limit}`;
}

function characteristicSaid(found: Characteristic, units: DisplayUnits): string {
  const unit = shownUnit(shownAs(found.id), units, foundSize(found));
  const symbol = unit.symbol === '1' ? '' : ` ${unit.symbol}`;
  switch (found.kind) {
    case 'measured':
      return `${figure(found.estimate.value, unit, expandedUncertainty(found.estimate))}${symbol}`;
    case 'beyond':
      return `${found.side} ${figure(found.bound.value, unit)}${symbol}`;
    case 'absent':
      return `not found: ${inSentence(analysisProblemText(found.problem, units))}`;
  }
}

/** The findings that say most for a row, or against it, strongest first; those below a deciban say nothing. */
export function strongest({ weighed }: Pick<LedgerRow, 'weighed'>, most: number): readonly Weighed[] {
  return weighed
    .filter(({ decibans }) => Math.abs(decibans) >= 1)
    .toSorted((a, b) => Math.abs(b.decibans) - Math.abs(a.decibans))
    .slice(0, most);
}

const sameHypothesis = (a: Hypothesis, b: Hypothesis) => hypothesisId(a) === hypothesisId(b);

/** What to do next, as an order and a reason. */
export function nextTestText(
  kind: AnyKind,
  next: NextTest,
  { borneOut }: Pick<Ledger, 'borneOut'>,
): { readonly order: string; readonly why: string } {
  const title = (hypothesis: Hypothesis) => `“${inSentence(hypothesisTitle(kind, hypothesis))}”`;
  const stepTitle = (id: string) => kind.steps.find((each) => each.id === id)?.title ?? id;
  switch (next.kind) {
    case 'test': {
      const { step, before, minutes, between } = next.worth;
      const settles = `${minutes} min; would settle ${title(between[0])} against ${title(between[1])}.`;
      if (before.length === 0) return { order: stepTitle(step), why: settles };
      return { order: stepTitle(before[0]), why: `It opens ${inSentence(stepTitle(step))}: together ${settles}` };
    }
    case 'certain':
      return next.hypothesis.kind === 'no-fault'
        ? { order: 'Every step is done', why: 'Nothing points to a fault. What passed its limits decides the release.' }
        : {
            order: borneOut ? 'Stop here: certain enough' : 'Stop here, and look before you replace',
            why: `More bench time would hardly change it: ${title(next.hypothesis)}.`,
          };
    case 'finish-plan':
      return {
        order: stepTitle(next.step),
        why: `${next.minutes} min. Nothing points to a fault; a release wants the rest of the plan, in its order.`,
      };
    case 'open-it': {
      const [a, b] = next.between;
      const parts = kind.parts.filter((part) => next.parts.includes(part.id)).map((part) => inSentence(part.title));
      const apart = sameHypothesis(a, b) ? title(a) : `${title(a)} and ${title(b)}`;
      return {
        order: 'Open it: no step that is left would tell more',
        why:
          parts.length > 0
            ? `Look at the ${parts.join(' and the ')} to tell ${apart} apart.`
            : `Nothing here tells ${apart} apart.`,
      };
    }
  }
}
