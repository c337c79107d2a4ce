import * as z from 'zod';
export { lookUpJob as jobInBook } from '@/data/jobs';
import { instrumentsOnBench } from '@/data/settings';
import { findSheet, listSheets, type StoredSheet } from '@/data/unit-sheets';

/** Instruments that are mounted on the bench, and the channels of those that cannot be read. */
export const mountedInstruments = () => instrumentsOnBench();

/** Every unit sheet of the library. */
export const sheetsInLibrary = (): Promise<readonly StoredSheet[]> => listSheets();

/** A sheet of the library, where it is there. */
export const sheetInLibrary = (id: string): Promise<StoredSheet | undefined> => findSheet(id);

/** What a sheet says of a unit's feed: A, and V at the peak. */
export interface SheetToWire {
  readonly id: string;
  readonly name: string;
  readonly current: number;
  readonly feedDropMax: number;
  readonly groundDropMax: number;
  readonly mainFuse: number;
}

const wiredSpec = z.looseObject({
  ratedCurrentA: z.number(),
  supplyDropMaxV: z.number(),
  groundDropMaxV: z.number(),
  mainFuseA: z.number(),
});

/** Sheets of units with a feed of their own, as the wiring planner takes them: A and V. */
export async function sheetsToWire(): Promise<readonly SheetToWire[]> {
  return (await listSheets()).flatMap(({ id, name, spec }) => {
    const { data } = wiredSpec.safeParse(spec);
    return data
      ? [
          {
            id,
            name,
            current: data.ratedCurrentA,
            feedDropMax: data.supplyDropMaxV,
            groundDropMax: data.groundDropMaxV,
            mainFuse: data.mainFuseA,
          },
        ]
      : [];
  });
}

/** Sheets that name a purpose for their spheres. */
export async function sheetsWithSpheres(): Promise<readonly { readonly id: string; readonly name: string }[]> {
  const fitting = (await listSheets()).filter(
    ({ spec }) => (spec as { spherePurpose?: string }).spherePurpose !== undefined,
  );
  return fitting.map(({ id, name }) => ({ id, name }));
}
