import * as z from 'zod';

const word = z.enum(['pass', 'fail', 'undecided', 'recorded', 'not-run', 'incomplete']);
const points = z.array(z.tuple([z.number(), z.number()]));

/** A release as it was issued: every figure already in the units it was issued in, so that it prints the same for ever. */
export const reportSchema = z.object({
  format: z.literal('hard-pedal/report'),
  version: z.literal(1),
  methodVersion: z.number(),
  kind: z.enum(['released', 'findings-only']),
  /** When and why a paper that was issued no longer stands. */
  withdrawn: z.object({ at: z.string(), why: z.string() }).optional(),
  shop: z.string(),
  /** Time zone (IANA) of the workshop when it was issued; left out on papers of before that was kept. */
  timeZone: z.string().optional(),
  job: z.object({
    number: z.number(),
    serial: z.string(),
    unit: z.string(),
    family: z.string(),
    vehicle: z.string(),
    complaint: z.string(),
    /** In the words of the list; papers of before it was kept have none. */
    symptoms: z.array(z.string()).default([]),
    bookedAt: z.string(),
    fluid: z.string(),
  }),
  issuedAt: z.string(),
  issuedBy: z.string(),
  verdict: word,
  /** Where an inquiry ended, with what to do about it. */
  conclusion: z.object({ title: z.string(), advice: z.string() }).nullable().default(null),
  /** What may be the matter, likeliest first, with what says most for or against it; empty where nothing is wrong. */
  findings: z.array(z.object({ title: z.string(), probability: z.string(), reasons: z.array(z.string()) })).default([]),
  /** What was done to the unit between two rounds of testing. */
  repairs: z
    .array(z.object({ who: z.string(), when: z.string(), work: z.array(z.string()), note: z.string() }))
    .default([]),
  /** How far the last repair is proved. */
  proof: z.string().default(''),
  /** What it changed, in the steps that were done before and after it. */
  changes: z
    .array(z.object({ step: z.string(), name: z.string(), before: z.string(), after: z.string(), change: z.string() }))
    .default([]),
  policy: z.string(),
  air: z.array(z.string()),
  /** Set wherever a reading came from the stand-in rig. */
  standIn: z.boolean(),
  instruments: z.array(
    z.object({ name: z.string(), accuracy: z.string(), calibration: z.string(), overdue: z.boolean() }),
  ),
  steps: z.array(
    z.object({
      title: z.string(),
      verdict: word,
      who: z.string(),
      when: z.string(),
      source: z.string(),
      rows: z.array(
        z.object({ name: z.string(), reading: z.string(), limit: z.string(), limitSource: z.string(), verdict: word }),
      ),
      notes: z.array(z.string()),
    }),
  ),
  curve: z
    .object({
      // Releases issued before other families had a curve name neither curve nor axes.
      title: z.string().default('Boost curve'),
      /** Axis titles with unit and reference. */
      input: z.string().default('Input'),
      output: z.string().default('Output'),
      vacuum: z.string(),
      /** What the band was drawn for, as a sentence; papers issued before it was kept say it of a vacuum. */
      over: z.string().optional(),
      low: points,
      high: points,
      apply: points,
      wayBack: points,
      marks: z.array(z.object({ title: z.string(), at: z.tuple([z.number(), z.number()]) })),
    })
    .nullable(),
  /** The face of a unit that is no curve, as it was drawn when the paper was issued. */
  picture: z.object({ title: z.string(), text: z.string(), svg: z.string() }).nullable().default(null),
  cautions: z.array(z.string()),
  acknowledged: z.array(z.string()),
});

export type Report = z.infer<typeof reportSchema>;
