import type { AnyKind } from '@/core/contract/kind';
import { writtenKey } from '@/core/procedure/look-step';
import { storedFaults, storedFaultsText } from '@/core/rig/scan-tool';
import type { Job } from '@/data/jobs';
import type { Repair } from '@/data/repairs';
import { standInNow } from './stand-in-now';

/** How the unit on the stand-in looks, by point: all that a look step may know of what is mounted there. */
export async function standInLooks(
  job: Job,
  repairs: readonly Repair[],
  kind: AnyKind,
): Promise<Readonly<Record<string, string>>> {
  const { faults } = await standInNow(job, repairs);
  const mounted = kind.model.faults.filter((fault) => faults.some((active) => active.id === fault.id));
  const looks = Object.assign({}, ...mounted.map((fault) => fault.appearance)) as Record<string, string>;
  const codes = storedFaultsText(storedFaults(kind, faults));
  return codes === '' ? looks : { ...looks, [writtenKey('codes')]: codes };
}
