import * as z from 'zod';
import { kindOfSheet } from '@/core/families';
import { fluidKinds, type FluidKind } from '@/core/vocabulary/fluid';
import { restateSphereReading } from '@/core/toolboxes/store/model/sphere-check';
import { spherePurposes, type SpherePurpose } from '@/core/vocabulary/sphere-purpose';
import { instrumentFromSite } from '@/core/formats/site-file';
import { instrumentsByChannel } from '@/core/instruments/default-instruments';
import { readFigure } from '@/core/quantities/read-figure';
import { toSi, unitOf } from '@/core/quantities/measurement-unit';
import { displayUnits } from '@/core/wording/display';
import { analysisProblemText } from '@/core/wording/problem-text';
import { listInstruments, listPeople } from '@/data/settings';
import { refuseStranger } from './people';
import {
  findSphere,
  insertSphere,
  insertSphereCheck,
  listSphereChecks,
  listSpheres,
  markFitted,
  type Sphere,
  type StoredSphereCheck,
} from '@/data/spheres';
import { findSheet } from '@/data/unit-sheets';
import { changeShop } from './change-shop';
import { RequestRefused } from '../http/refused';
import { ambientNow } from './air-text';

const lookAgain = 'Some fields need another look.';
const serial = z.string().trim().min(2, 'Read the serial off the sphere').max(40);

export const sphereFormSchema = z.object({
  serial,
  purpose: z.enum(spherePurposes, 'Choose what it is for'),
  fluid: z.enum(fluidKinds, 'Choose the fluid it works in'),
  precharge: z.string().max(60),
});

export const sphereCheckSchema = z.object({
  serial,
  reading: z.string().max(60),
  temperatureC: z
    .number('The shell’s temperature, °C')
    .min(-60, 'No shell is that cold')
    .max(80, 'No shell is that warm'),
  person: z.string().min(1).max(80),
});

export const sphereFitSchema = z.object({ serial, sheetId: z.string().min(1, 'Choose what it goes on').max(120) });

/** A gauge pressure as typed, with or without a unit, Pa; refuses by the field's name. */
function pressureOf(text: string, field: string, ambient: number): number {
  const read = readFigure(text, { unit: unitOf('MPa'), reference: 'gauge', ambient });
  if (read.kind === 'figure' && read.either)
    throw new RequestRefused(422, lookAgain, {
      [field]: `Is it ${read.either[0].trim()} or ${read.either[1].trim()}?`,
    });
  if (read.kind !== 'figure' || !(read.value > 0))
    throw new RequestRefused(422, lookAgain, { [field]: 'A pressure above zero, for instance 6.2 MPa or 62 bar' });
  return read.value;
}

async function sphereNamed(name: string): Promise<Sphere> {
  const sphere = await findSphere(name);
  if (!sphere) throw new RequestRefused(404, 'This sphere is not in the book: enter it first.');
  return sphere;
}

/** Enters a sphere by its serial. */
export async function enterSphere(form: z.infer<typeof sphereFormSchema>): Promise<void> {
  if (await findSphere(form.serial))
    throw new RequestRefused(422, lookAgain, { serial: 'This serial is in the book already' });
  await insertSphere({ ...form, precharge: pressureOf(form.precharge, 'precharge', (await ambientNow()).pressure) });
}

/** Records a check of a sphere's precharge on the charging tool: restated to 20 °C, with its uncertainty. */
export async function checkSphere(form: z.infer<typeof sphereCheckSchema>, at = new Date()): Promise<void> {
  await sphereNamed(form.serial);
  refuseStranger(await listPeople(), form.person);
  const ambient = (await ambientNow()).pressure;
  const reading = pressureOf(form.reading, 'reading', ambient);
  const temperature = toSi(form.temperatureC, unitOf('°C'));
  const instruments = instrumentsByChannel((await listInstruments()).map(instrumentFromSite));
  await insertSphereCheck({
    serial: form.serial,
    at: at.toISOString(),
    reading,
    temperature,
    ...restateSphereReading({ reading, temperature, ambient, instruments, at: at.toISOString() }),
    person: form.person,
  });
}

interface SphereSheet {
  readonly spherePurpose?: SpherePurpose;
  readonly fluid?: FluidKind;
}

/**
 * Fits a sphere to what a sheet describes. Refused where the sphere is for another purpose, or has worked in another fluid:
 * the one is dangerous, the other destroys the seals.
 */
export async function fitSphere(form: z.infer<typeof sphereFitSchema>): Promise<void> {
  const sphere = await sphereNamed(form.serial);
  const sheet = await findSheet(form.sheetId);
  const kind = sheet && kindOfSheet(sheet);
  if (!sheet || !kind) throw new RequestRefused(422, lookAgain, { sheetId: 'This sheet is not in the library' });
  const spec = kind.sheet.schema.parse(sheet.spec) as SphereSheet;
  const units = displayUnits('kpa');
  if (spec.spherePurpose === undefined)
    throw new RequestRefused(422, lookAgain, { sheetId: 'This sheet names no purpose for a sphere' });
  if (spec.spherePurpose !== sphere.purpose) {
    const problem = { code: 'sphere-of-other-purpose', found: sphere.purpose, wanted: spec.spherePurpose } as const;
    throw new RequestRefused(422, analysisProblemText(problem, units), {
      sheetId: analysisProblemText(problem, units),
    });
  }
  if (spec.fluid !== undefined && spec.fluid !== sphere.fluid) {
    const problem = { code: 'fluid-mixed', found: sphere.fluid, wanted: spec.fluid } as const;
    throw new RequestRefused(422, analysisProblemText(problem, units), {
      sheetId: analysisProblemText(problem, units),
    });
  }
  await changeShop(
    { key: `sphere ${form.serial}`, title: 'This sphere has been' },
    async () => ({ already: (await sphereNamed(form.serial)).fittedTo === sheet.name }),
    (trx) => markFitted(form.serial, sheet.name, trx),
  );
}

export interface SphereLife extends Sphere {
  readonly checks: readonly StoredSphereCheck[];
}

/** Every sphere with its checks in the order of time. */
export async function sphereLives(): Promise<SphereLife[]> {
  return Promise.all(
    (await listSpheres()).map(async (sphere) => ({ ...sphere, checks: await listSphereChecks(sphere.serial) })),
  );
}
