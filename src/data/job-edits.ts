import type { Act, NewAct } from './acts';
import type { AcknowledgedCaution, Booked, Order, Place } from './jobs';
import type { MappedColumn } from '@/core/formats/column-mapping';
import type { JobRecord } from './job-record';
import type { StoredRelease } from './releases';
import type { Repair } from './repairs';
import type { NewRun, Run, RunState } from './runs';

/** One thing that changes on a job's record. What a use case does is a list of them, written together or not at all. */
export type JobEdit =
  | { readonly kind: 'run-begun'; readonly id: string; readonly run: NewRun }
  /** `from` is the state that was decided on: where it is another by now, nothing is written. */
  | {
      readonly kind: 'run-state';
      readonly id: string;
      readonly from: RunState;
      readonly to: RunState;
      readonly endedAt?: string;
    }
  | { readonly kind: 'run-struck'; readonly id: string; readonly reason: string | null }
  | { readonly kind: 'repaired'; readonly repair: Repair }
  | { readonly kind: 'repair-undone'; readonly id: string; readonly at: string }
  | ({ readonly kind: 'caution-read' } & AcknowledgedCaution)
  | { readonly kind: 'placed'; readonly place: Place }
  | { readonly kind: 'ordered'; readonly by: Order }
  | { readonly kind: 'corrected'; readonly to: Partial<Booked> }
  | { readonly kind: 'taken-out'; readonly at: string | null }
  | { readonly kind: 'issued'; readonly release: Omit<StoredRelease, 'withdrawn'> }
  | { readonly kind: 'withdrawn'; readonly id: string; readonly at: string; readonly why: string }
  /** The release that stands was looked at, and stands. */
  | { readonly kind: 'reviewed'; readonly id: string }
  | { readonly kind: 'act'; readonly act: NewAct }
  | { readonly kind: 'act-undone'; readonly id: number; readonly at: string }
  | { readonly kind: 'mapping-remembered'; readonly fingerprint: string; readonly mapping: readonly MappedColumn[] };

const changed = <T extends { readonly id: unknown }>(all: readonly T[], id: T['id'], over: Partial<T>): readonly T[] =>
  all.map((each) => (each.id === id ? { ...each, ...over } : each));

function applied(record: JobRecord, edit: JobEdit, at: string): JobRecord {
  switch (edit.kind) {
    case 'run-begun': {
      const { findings = null, readings = null, ...run } = edit.run;
      const begun: Run = {
        ...run,
        id: edit.id,
        findings,
        readings,
        progress: null,
        struckOut: null,
        endedAt: run.state === 'recording' ? null : run.startedAt,
        sequence: (record.runs.at(-1)?.sequence ?? 0) + 1,
      };
      return { ...record, runs: [...record.runs, begun] };
    }
    case 'run-state': {
      const ended = edit.endedAt === undefined ? {} : { endedAt: edit.endedAt };
      return { ...record, runs: changed(record.runs, edit.id, { state: edit.to, ...ended }) };
    }
    case 'run-struck':
      return { ...record, runs: changed(record.runs, edit.id, { struckOut: edit.reason }) };
    case 'repaired':
      return { ...record, repairs: [...record.repairs, edit.repair] };
    case 'repair-undone':
      return { ...record, repairs: record.repairs.filter((each) => each.id !== edit.id) };
    case 'caution-read': {
      const { caution, person } = edit;
      return { ...record, cautions: [...record.cautions, { caution, person, at: edit.at }] };
    }
    case 'placed':
      return { ...record, job: { ...record.job, place: edit.place } };
    case 'ordered':
      return { ...record, job: { ...record.job, orderedBy: edit.by } };
    case 'corrected':
      return { ...record, job: { ...record.job, ...edit.to } };
    case 'taken-out':
      return { ...record, job: { ...record.job, takenOutAt: edit.at } };
    case 'issued': {
      const { id, jobId, kind, issuedAt, person } = edit.release;
      const issued = { id, jobId, kind, issuedAt, person, withdrawn: null, reviewedAtVersion: null };
      return { ...record, releases: [...record.releases, issued] };
    }
    case 'withdrawn':
      return { ...record, releases: changed(record.releases, edit.id, { withdrawn: { at: edit.at, why: edit.why } }) };
    case 'reviewed':
      return { ...record, releases: changed(record.releases, edit.id, { reviewedAtVersion: record.job.version + 1 }) };
    case 'act': {
      const { before = null, ...act } = edit.act;
      const last = record.acts.at(-1)?.id ?? 0;
      const done: Act = { ...act, before, id: last + 1, at, undoneAt: null, version: record.job.version + 1 };
      return { ...record, acts: [...record.acts, done] };
    }
    case 'act-undone':
      return { ...record, acts: changed(record.acts, edit.id, { undoneAt: edit.at }) };
    case 'mapping-remembered':
      return record;
  }
}

/** The record as it will be once these edits are written: what is decided on before they are. */
export const withEdits = (record: JobRecord, edits: readonly JobEdit[], at: string): JobRecord =>
  edits.reduce((now, edit) => applied(now, edit, at), record);
