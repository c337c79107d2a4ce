import * as z from 'zod';
import { prevalences, type Prevalence, type Prevalences } from '@/core/contract/prevalence';
import { families, findFamily } from '@/core/families';
import { readPrevalences, writePrevalences } from '@/data/settings';
import { changeShop } from './change-shop';
import { RequestRefused } from '../http/refused';

/** How common each fault of a family is: as the family says, and what this workshop says otherwise. */
export interface FamilyPrevalences {
  readonly family: string;
  readonly title: string;
  readonly faults: readonly { readonly id: string; readonly title: string; readonly usual: Prevalence }[];
  readonly said: Prevalences;
}

/** Faults of all kinds of a family, each once. */
function faultsOf(id: string): FamilyPrevalences['faults'] {
  const faults = new Map<string, FamilyPrevalences['faults'][number]>();
  for (const kind of findFamily(id)?.kinds ?? [])
    for (const fault of kind.model.faults)
      faults.set(fault.id, { id: fault.id, title: fault.title, usual: kind.prevalence[fault.id] ?? 'ordinary' });
  return [...faults.values()];
}

export async function everyPrevalence(): Promise<readonly FamilyPrevalences[]> {
  const said = await readPrevalences();
  return families.map(({ id, title }) => ({ family: id, title, faults: faultsOf(id), said: said[id] ?? {} }));
}

export const prevalenceSchema = z.object({
  family: z.string().max(80),
  fault: z.string().max(80),
  prevalence: z.enum(prevalences),
});

/** Keeps what a workshop says of one fault of a family; what is as the family says is not kept. */
export async function savePrevalence({
  family,
  fault,
  prevalence,
}: z.infer<typeof prevalenceSchema>): Promise<{ version: number }> {
  const known = faultsOf(family).find((each) => each.id === fault);
  if (!known) throw new RequestRefused(422, `There is no fault “${fault}” of a family “${family}”.`);
  let all = await readPrevalences();
  return changeShop(
    { key: 'prevalences', title: 'How common faults are here has' },
    async () => {
      all = await readPrevalences();
      return { already: (all[family]?.[fault] ?? known.usual) === prevalence };
    },
    (trx) => {
      const others = Object.fromEntries(Object.entries(all[family] ?? {}).filter(([id]) => id !== fault));
      const said = known.usual === prevalence ? others : { ...others, [fault]: prevalence };
      return writePrevalences(trx, { ...all, [family]: said });
    },
  );
}
