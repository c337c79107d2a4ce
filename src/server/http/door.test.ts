import { largestBody, refusalAtTheDoor } from './door';

const json = { 'content-type': 'application/json' };
const at = (method: string, path: string, headers: Record<string, string>) =>
  refusalAtTheDoor(method, `http://127.0.0.1:4380${path}`, new Headers({ host: '127.0.0.1:4380', ...headers }))
    ?.status ?? 200;

describe('the door', () => {
  it.each([
    [
      'a page of this server',
      'POST',
      { ...json, origin: 'http://127.0.0.1:4380', 'sec-fetch-site': 'same-origin' },
      200,
    ],
    ['a command line', 'POST', json, 200],
    ['another site’s page', 'POST', { ...json, origin: 'http://elsewhere.test' }, 403],
    ['another port of this machine', 'POST', { ...json, origin: 'http://127.0.0.1:9999' }, 403],
    ['a page that hides where it is from', 'POST', { ...json, origin: 'null' }, 403],
    ['a form of another site', 'POST', { 'content-type': 'text/plain', 'sec-fetch-site': 'cross-site' }, 403],
    ['a name made to point here', 'POST', { ...json, host: 'elsewhere.test:4380' }, 403],
    ['no name at all', 'POST', { ...json, host: '' }, 403],
    ['what is not said to be JSON', 'POST', { 'content-type': 'text/plain' }, 415],
    ['what is said to be something like it', 'PUT', { 'content-type': 'application/jsonp' }, 415],
    ['a body like a book', 'POST', { ...json, 'content-length': String(largestBody + 1) }, 413],
    ['another site that deletes', 'DELETE', { ...json, 'sec-fetch-site': 'same-site' }, 403],
  ])('%s: %s', (_what, method, headers, status) => {
    expect(at(method, '/api/jobs/1/releases', headers as Record<string, string>)).toBe(status);
  });

  it('keeps other sites’ pages from a stream, and lets this server’s own have it', () => {
    expect(at('GET', '/api/runs/1/stream', { 'sec-fetch-site': 'cross-site' })).toBe(403);
    expect(at('GET', '/api/runs/1/stream', { 'sec-fetch-site': 'same-origin' })).toBe(200);
  });

  it('takes the parts of a log as bytes', () => {
    const bytes = { 'content-type': 'application/octet-stream', 'content-length': String(4 * largestBody) };
    expect(at('PUT', '/api/runs/1/parts', bytes)).toBe(200);
    expect(at('POST', '/api/runs/1/parts', bytes)).toBe(413);
  });

  it('says of an address that cannot be read that it cannot', () => {
    expect(at('GET', '/jobs/%E0%A4%A', {})).toBe(400);
    expect(at('GET', '/jobs/a%20b', {})).toBe(200);
  });

  it('answers to a name that was given to it', () => {
    process.env.HARD_PEDAL_HOSTS = 'bench.shop:4380';
    expect(at('GET', '/', { host: 'bench.shop:4380' })).toBe(200);
    expect(at('GET', '/', { host: 'bench.shop.elsewhere.test:4380' })).toBe(403);
    delete process.env.HARD_PEDAL_HOSTS;
  });
});
