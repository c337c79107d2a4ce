import { existsSync, mkdirSync, renameSync, rmSync, statSync } from 'node:fs';
import path from 'node:path';
import knex, { type Knex } from 'knex';
import { openDatabase } from './database';
import { takeFolder } from './one-server';
import { forgetMark, markEntries, refuseUnusableFile, refuseUnusableShape, Unusable } from './unusable';

const book = 'hard-pedal.sqlite';

/** What stands in a copy of the shop's book. */
export interface BookCopy {
  readonly file: string;
  readonly jobs: number;
  /** Bytes. */
  readonly size: number;
}

const opened = (file: string): Knex =>
  knex({
    client: 'better-sqlite3',
    connection: { filename: file, options: { readonly: true } },
    useNullAsDefault: true,
    pool: { min: 1, max: 1 },
  });

/** Writes a book into one file, with what stands in its journal: a file that is copied beside that would lack it. */
async function copyWhole(from: string, to: string): Promise<void> {
  rmSync(to, { force: true });
  const source = opened(from);
  try {
    await source.raw('vacuum into ?', [to]);
    await lookThrough(to);
  } catch (error) {
    rmSync(to, { force: true });
    if (['SQLITE_FULL', 'SQLITE_IOERR', 'SQLITE_CANTOPEN'].some((code) => (error as { code?: string }).code === code))
      throw new Unusable(`${to} could not be written: is there room on the disk, and may this folder be written to?`);
    throw error;
  } finally {
    await source.destroy();
  }
}

/** Looks a copy through: whole, of a shop, of no newer edition. Throws `Unusable` with what is wrong with it. */
async function lookThrough(file: string): Promise<BookCopy> {
  if (!existsSync(file)) throw new Unusable(`There is no file ${file}.`);
  refuseUnusableFile(file);
  const copy = opened(file);
  try {
    await refuseUnusableShape(copy, file);
    const [check] = (await copy.raw('pragma quick_check(1)')) as { quick_check: string }[];
    if (check.quick_check !== 'ok')
      throw new Unusable(`The copy ${file} is damaged (${check.quick_check}): take another one.`);
    const { n } = (await copy('jobs').count('* as n').first()) as { n: number };
    return { file, jobs: n, size: statSync(file).size };
  } finally {
    await copy.destroy();
  }
}

/**
 * Copies the shop's book into one file, also while a server writes to it: what was written before the copy began is in it, whole. The file
 * stands under its name only once it has been looked through.
 */
export async function backUp(folder: string, to: string): Promise<BookCopy> {
  const from = path.join(folder, book);
  if (!existsSync(from)) throw new Unusable(`There is no book of a shop in ${folder}.`);
  if (existsSync(to)) throw new Unusable(`${to} is there already: a copy writes over nothing.`);
  mkdirSync(path.dirname(path.resolve(to)), { recursive: true });
  const part = `${to}.part`;
  await copyWhole(from, part);
  renameSync(part, to);
  return { ...(await lookThrough(to)), file: to };
}

/** A book that was put back, and where the one before it lies now; null where there was none. */
export interface Restored extends BookCopy {
  readonly before: string | null;
}

/**
 * Puts a copy back as the shop's book. The copy is looked through first; the book that was there is moved aside, never written over. Throws
 * `FolderTaken` beside a running server, `Unusable` where the copy is none. `at` names what is moved aside.
 */
export async function restore(folder: string, from: string, at: string): Promise<Restored> {
  const giveBack = await takeFolder(folder);
  try {
    const copy = await lookThrough(from);
    const target = path.join(folder, book);
    const coming = `${target}.coming`;
    const aside = path.join(folder, `before-restore-${at}.sqlite`);
    if (existsSync(aside)) throw new Unusable(`${aside} is there already: wait a moment, and try again.`);
    await copyWhole(from, coming);
    const before = existsSync(target) ? aside : null;
    if (before !== null)
      // Its journal goes with it: what stands in that is part of the book.
      for (const ending of ['-wal', '-shm', ''])
        if (existsSync(target + ending)) renameSync(target + ending, before + ending);
    renameSync(coming, target);
    // On purpose it may know less than the one before.
    forgetMark(folder);
    const database = await openDatabase(folder);
    await markEntries(database, folder);
    await database.destroy();
    return { ...copy, file: target, before };
  } finally {
    await giveBack();
  }
}
