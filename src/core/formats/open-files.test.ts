import { readFileSync } from 'node:fs';
import { families, everyKind, findFamily, kindNamed } from '../families';
import { readProblemText } from '../wording/read-problem-text';
import { readReadings } from './readings';
import { contextAt, readSite } from './site-file';
import { readUnitSheet, writeUnitSheet, unitSheetJsonSchema } from './unit-sheet';
import { writePrediction } from './prediction';

const kind = kindNamed('vacuum-remote');
const sheetText = (spec: object, over: object = {}) =>
  JSON.stringify({ ...writeUnitSheet(kind.family, 'Unit', spec), ...over });
const said = (result: { ok: boolean; problems?: readonly Parameters<typeof readProblemText>[0][] }) =>
  result.ok ? '' : readProblemText(result.problems![0]);

describe('unit sheet', () => {
  it.each(everyKind.map((each) => [each.sheet.example.name, each] as const))(
    'the example of %s is valid and has a schema',
    (_id, each) => {
      expect(
        readUnitSheet(
          JSON.stringify(writeUnitSheet(each.family, each.sheet.example.name, each.sheet.example.spec)),
          'u.json',
        ).ok,
      ).toBe(true);
      expect(unitSheetJsonSchema(findFamily(each.family)!)).toMatchObject({
        properties: { family: { const: each.family } },
      });
    },
  );

  it.each(families.map((each) => [each.id, each] as const))('the published schema of %s is not stale', (id, each) => {
    const published: unknown = JSON.parse(readFileSync(`docs/schemas/${id}.schema.json`, 'utf8'));
    expect(published).toEqual(JSON.parse(JSON.stringify(unitSheetJsonSchema(each))));
  });

  it('names file and field of what is wrong', () => {
    const spec = kind.sheet.example.spec as object;
    expect(said(readUnitSheet(sheetText({ ...spec, slaveBoreMm: -3 }), 'u.json'))).toContain(
      'u.json: field spec.slaveBoreMm',
    );
    expect(said(readUnitSheet(sheetText({ ...spec, slaveBore: 3 }), 'u.json'))).toContain('slaveBore');
    expect(said(readUnitSheet(sheetText(spec, { family: 'teapot' }), 'u.json'))).toContain(
      '"teapot" is not known; known: vacuum-remote',
    );
    expect(said(readUnitSheet('{', 'u.json'))).toContain('u.json: not valid JSON');
    expect(said(readUnitSheet('[]', 'u.json'))).toContain('u.json');
  });
});

describe('site file', () => {
  it('takes everything as optional, and a station barometer over the altitude', () => {
    const sheet = readUnitSheet(sheetText(kind.sheet.example.spec as object), 'u.json');
    if (!sheet.ok) throw new Error('the example is not valid');
    const site = readSite('{"altitudeM":1420,"barometerKpa":84.1}', 's.json');
    if (!site.ok) throw new Error('the site is not valid');
    expect(contextAt(sheet.value, site.value, '2026-11-23').ambient.pressure).toBeCloseTo(84_100, 6);
    expect(contextAt(sheet.value, {}, '2026-11-23').ambient.source).toBe('sea-level-assumed');
  });

  it('turns instruments into SI and refuses a unit that does not fit', () => {
    const instrument = {
      channel: 'supply_vacuum',
      range: 30,
      resolution: 0.5,
      unit: 'inHg',
      classPercent: 1,
      classOf: 'full-scale',
    };
    const good = readSite(JSON.stringify({ instruments: [instrument] }), 's.json');
    const bad = readSite(JSON.stringify({ instruments: [{ ...instrument, unit: 'mm' }] }), 's.json');
    expect(good.ok).toBe(true);
    expect(said(bad)).toContain('instruments.0.unit');
  });
});

const exampleSheet = readUnitSheet(sheetText(kind.sheet.example.spec as object), 'u.json');
if (!exampleSheet.ok) throw new Error('the example is not valid');
const context = contextAt(exampleSheet.value, {}, '2026-11-23');

describe('readings table', () => {
  it('takes typed values in any unit and findings', () => {
    const result = readReadings(
      'step,characteristic,finding,value,unit\nrelease,residual-output,,2,psi\nleak-look,,end-cap,dry,\n',
      'r.csv',
      kind,
      context,
    );
    if (!result.ok) throw new Error(said(result));
    expect(result.value.typed.get('release')?.get('residual-output')).toBeCloseTo(13789.514, 2);
    expect(result.value.findings.get('leak-look')).toEqual({ 'end-cap': 'dry' });
  });

  it('takes what a step asks of its dials, in any unit', () => {
    const text =
      'step,characteristic,value,unit\nvacuum-hold-rest,start,17.7,inHg\nvacuum-hold-rest,seconds,15,s\nvacuum-hold-rest,end,59,kPa\n';
    const result = readReadings(text, 'r.csv', kind, context);
    if (!result.ok) throw new Error(said(result));
    expect(result.value.typed.size).toBe(0);
    expect(result.value.dials.get('vacuum-hold-rest')).toEqual({
      start: expect.closeTo(59_939, 0),
      seconds: 15,
      end: 59_000,
    });
  });

  it.each([
    [
      'step,characteristic,value,unit\nvacuum-hold-rest,start,60,kPa\nvacuum-hold-rest,vacuum-loss,1,kPa\n',
      'half and half',
    ],
    ['step,characteristic,value,unit\nvacuum-hold-rest,start,60,s\n', 'line 2, unit'],
    ['step,characteristic,value\nrelease,residual-output,lots\n', 'line 2, value'],
    ['step,characteristic,value\nrelease,boost-ratio,2\n', 'line 2, characteristic'],
    ['step,finding,value\nleak-look,elbow,dry\n', 'line 2, finding'],
    ['step,finding,value\nleak-look,end-cap,soggy\n', 'line 2, value'],
    ['step,characteristic\nrelease,residual-output\n', 'value'],
    ['step,characteristic,value,unit\nrelease,residual-output\n', 'line 2, value'],
    ['step,characteristic,value,unit\nrelease,residual-output,2,furlong\n', 'line 2, unit'],
    ['step,characteristic,value,unit\nrelease,residual-output,2,mm\n', 'line 2, unit'],
    ['step,characteristic,value\n\nrelease,residual-output,2\n\n , ,\nrelease,residual-output,x\n', 'line 6, value'],
    ['step,finding,value\nleak-look,end-cap\n', 'line 2, value'],
    ['step,value\nrelease,2\n', 'line 2, characteristic'],
    ['step,value\n,2\n', 'line 2, step: "" is not known'],
    ['step,value\nrelease,2\nteapot,2\n', 'line 2, characteristic'],
    [
      'step,characteristic,value\nrelease,release-time,1\nrelease,release-time,2\n',
      'line 3, characteristic: stands in the file twice',
    ],
    ['step,characteristic,value\nrelease,release-time,0x10\n', '"0x10" is not a number'],
    ['step,characteristic,value\nrelease,release-time,1e300\n', '"1e300" is not a number'],
    ['step,characteristic,value\nrelease,residual-output,1000000\n', 'is hardly so'],
    ['step,value\nteapot,2\n', 'line 2, step: "teapot" is not known; known: look-over'],
  ])('names the place of what is wrong in %j', (text, place) => {
    expect(said(readReadings(text, 'r.csv', kind, context))).toContain(place);
  });
});

describe('prediction', () => {
  it('states the key points of the example at its rated vacuum', () => {
    const sheet = readUnitSheet(sheetText(kind.sheet.example.spec as object), 'u.json');
    if (!sheet.ok) throw new Error('the example is not valid');
    const prediction = writePrediction(kind, contextAt(sheet.value, {}, '2026-11-23'), 60e3) as {
      keyPoints: { id: string; inputKpa: number }[];
      limits: { characteristic: string; high: number | null }[];
    };
    // p_k = p_1 + V/k = 350 + 60/0.042 kPa
    expect(prediction.keyPoints.find((point) => point.id === 'run-out')?.inputKpa).toBeCloseTo(350 + 60 / 0.042, 3);
    expect(prediction.limits.find((limit) => limit.characteristic === 'vacuum-loss')?.high).toBe(3.3);
  });
});
