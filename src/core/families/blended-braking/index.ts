import type { Family } from '../../contract/family';
import type { Kind } from '../../contract/kind';
import { closure } from './closure-step';
import { blendedDiagram } from './diagram';
import { errorCurve } from './error-by-speed';
import type { BlendedCondition } from './faults';
import { prepareBlended, type BlendedUnit } from './geometry';
import { handover } from './handover-step';
import { lampStates } from './lamp-states-step';
import { logCheck } from './log-check-step';
import { blendedModel } from './model';
import { panicEventsStep } from './panic-step';
import { blendedParts, blendedPrevalence, blendedSymptoms } from './parts-and-symptoms';
import { pressureOrder } from './pressure-order-step';
import { regenLimit } from './regen-limit-step';
import { blendedRows } from './rows';
import { blendedFields, blendedSchema, type BlendedSpec } from './sheet';
import { lackingOf } from './step-parts';

const questions = [closure, handover, panicEventsStep, regenLimit, pressureOrder, lampStates];
const steps = [logCheck(questions.map(lackingOf)), ...questions];

const kind: Kind<BlendedSpec, BlendedUnit, BlendedCondition> = {
  family: 'blended-braking',
  value: '',
  title: 'Blended braking',
  description: 'Motor and friction brakes together, judged on the log of a drive',
  sheet: {
    schema: blendedSchema,
    fields: blendedFields,
    example: {
      name: 'Tarnock HV6 shuttle',
      spec: blendedSchema.parse({
        frictionCoefficientFront: 0.38,
        pistonAreaFrontMm2: 2290,
        effectiveRadiusFrontMm: 130,
        frictionCoefficientRear: 0.38,
        pistonAreaRearMm2: 900,
        effectiveRadiusRearMm: 120,
        tyreRadiusMm: 310,
        massKg: 1700,
      }),
    },
    prepare: prepareBlended,
  },
  model: blendedModel,
  parts: blendedParts,
  diagram: blendedDiagram,
  symptoms: blendedSymptoms,
  prevalence: blendedPrevalence,
  plans: [
    {
      id: 'vehicle',
      title: 'On the log of a drive',
      steps: steps.map((step) => step.id),
      closing: ['log-check', 'lamp-states'],
      face: 'closure',
      conclusions: [],
      supply: null,
      lever: null,
      oneLog: { minutes: 25 },
    },
  ],
  steps,
  curve: errorCurve,
};

/** A vehicle that brakes with its motor too: no bench runs it, a drive is read. */
export const blendedBraking: Family = {
  id: kind.family,
  title: kind.title,
  description: kind.description,
  toldBy: null,
  kinds: [kind],
  rows: blendedRows,
};
