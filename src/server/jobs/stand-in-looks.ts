import type { AnyKind } from '@/core/contract/kind';
import { findStandIn } from '@/data/stand-ins';

/** How the unit on the stand-in looks, by point: all that a look step may know of what is mounted there. */
export async function standInLooks(jobId: string, kind: AnyKind): Promise<Readonly<Record<string, string>>> {
  const { faults } = await findStandIn(jobId);
  const mounted = kind.model.faults.filter((fault) => faults.some((active) => active.id === fault.id));
  return Object.assign({}, ...mounted.map((fault) => fault.appearance)) as Record<string, string>;
}
