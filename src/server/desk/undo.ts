import type { Act } from '@/data/acts';
import { findAct } from '@/data/acts';
import type { JobEdit } from '@/data/job-edits';
import type { Place } from '@/data/jobs';
import { stepTitle } from '../context/job-context';
import { RequestRefused } from '../http/refused';
import { undoableOf, type Undoable } from '../views/undoable';
import { changeJob } from './change-job';
import { bookedBefore, withdrawsFor } from './correct-booking';
import { refuseWhileOpen } from './open-step';

/** Takes an act back, once: whoever comes second is told. */
export async function undoAct(id: number, person: string): Promise<{ version: number }> {
  const act = await findAct(id);
  if (!act) throw new RequestRefused(404, 'This is not on record.');
  const { jobId, subject } = act;
  return changeJob(jobId, {
    person,
    // It can be taken back, or it cannot: that is told by the record itself.
    anyVersion: true,
    decide({ record, at }) {
      const undoable = undoableOf(record, (step) => stepTitle(record.job, step)).find((each) => each.act === id);
      if (!undoable)
        throw new RequestRefused(409, 'This cannot be taken back any more: something else was done since.');
      // What comes back is finished and waits to be kept.
      if (undoable.what === 'discarded') refuseWhileOpen(record);
      const brought = { jobId, subject, act: 'brought-back', person, detail: undoable.what } as const;
      const booked = undoable.what === 'corrected' ? bookedBefore(act) : {};
      // A run goes on by the sheet that it was begun with.
      if (booked.sheet) refuseWhileOpen(record);
      return {
        ...withdrawsFor(record.job, booked),
        edits: [{ kind: 'act-undone', id, at }, ...restored(act, undoable.what, at), { kind: 'act', act: brought }],
        result: {},
      };
    },
  });
}

function restored(act: Act, what: Undoable['what'], at: string): readonly JobEdit[] {
  const { subject, before } = act;
  const id = subject ?? '';
  switch (what) {
    case 'discarded':
      return [{ kind: 'run-state', id, from: 'discarded', to: 'complete' }];
    case 'struck-out':
      return [{ kind: 'run-struck', id, reason: null }];
    case 'moved':
      return [{ kind: 'placed', place: before as Place }];
    case 'repaired':
      return [{ kind: 'repair-undone', id, at }];
    case 'taken-out':
      return [{ kind: 'taken-out', at: null }];
    case 'corrected':
      return [{ kind: 'corrected', to: bookedBefore(act) }];
  }
}
