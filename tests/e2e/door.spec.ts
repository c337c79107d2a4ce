import { expect } from '@playwright/test';
import { test } from './test';
import { spawnSync } from 'node:child_process';
import { cpSync, mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { takeFolder } from '../../src/data/one-server';

test('another site’s page can change nothing and follow nothing, and no name but its own is answered', async ({
  request,
}) => {
  const job = '/api/jobs/job-ul-82-0340';
  const findings = { kind: 'findings-only', person: 'Piet Oduya', units: 'kpa' };
  const foreign = { Origin: 'http://elsewhere.test' };
  const before = await (await request.get(job)).json();
  expect((await request.post(`${job}/releases`, { data: findings, headers: foreign })).status()).toBe(403);
  expect((await request.put(`${job}/place`, { data: {}, headers: foreign })).status()).toBe(403);
  expect((await request.get('/api/runs/nothing/stream', { headers: foreign })).status()).toBe(403);
  expect((await request.get('/', { headers: { Host: 'elsewhere.test' } })).status()).toBe(403);
  const plain = { 'Content-Type': 'text/plain' };
  expect((await request.post(`${job}/releases`, { data: JSON.stringify(findings), headers: plain })).status()).toBe(
    415,
  );
  expect(await (await request.get(job)).json()).toEqual(before);
});

test('a browser is told to frame nothing, guess no types and tell nobody where it was', async ({ request }) => {
  const { headers } = await request.get('/').then((response) => ({ headers: response.headers() }));
  expect(headers['x-content-type-options']).toBe('nosniff');
  expect(headers['x-frame-options']).toBe('SAMEORIGIN');
  expect(headers['referrer-policy']).toBe('same-origin');
  const odd = await request.get('/api/jobs/%2e%2e%2f%27%20or%201=1');
  expect(odd.status()).toBe(404);
  expect(await odd.text()).not.toMatch(/select|sqlite|node_modules/i);
});

test('a second server on one data folder is refused by the folder’s name', async () => {
  const folder = mkdtempSync(path.join(tmpdir(), 'second-'));
  cpSync(process.env.SEEDED_SHOP!, folder, { recursive: true });
  const giveBack = await takeFolder(folder);
  const second = spawnSync(
    process.execPath,
    ['node_modules/next/dist/bin/next', 'start', '--hostname', '127.0.0.1', '--port', '4397'],
    { env: { ...process.env, HARD_PEDAL_DATA: folder }, encoding: 'utf8', timeout: 120_000 },
  );
  await giveBack();
  expect(second.status).toBe(1);
  expect(second.stderr).toContain(folder);
});
