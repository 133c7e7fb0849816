import { request } from 'node:http';
import { removeFolder, startTestServer, type TestServer } from '../testing/test-server';
import { answerProblem } from './problem';

let test: TestServer;

beforeAll(async () => {
  test = await startTestServer();
});

afterAll(async () => {
  await test.stop();
  removeFolder(test.dataFolder);
});

/** fetch refuses to set Host; this does not. */
function withHeaders(headers: Record<string, string>): Promise<number> {
  const { hostname, port } = new URL(test.url);
  return new Promise((resolve, reject) => {
    request({ hostname, port, path: '/api/collections', headers }, (response) => {
      response.resume();
      resolve(response.statusCode ?? 0);
    })
      .on('error', reject)
      .end();
  });
}

describe('safety on loopback', () => {
  it('refuses hosts and origins that are not its own', async () => {
    const { port } = new URL(test.url);
    expect(await withHeaders({ Host: `127.0.0.1:${port}` })).toBe(200);
    expect(await withHeaders({ Host: `localhost:${port}`, Origin: `http://localhost:${port}` })).toBe(200);
    expect(await withHeaders({ Host: 'evil.example' })).toBe(403);
    expect(await withHeaders({ Host: '127.0.0.1:1' })).toBe(403);
    expect(await withHeaders({ Host: `127.0.0.1:${port}`, Origin: 'http://evil.example' })).toBe(403);
    expect(await withHeaders({ Host: `127.0.0.1:${port}`, Origin: 'null' })).toBe(403);
  });

  it('refuses what a page elsewhere asks for, a plain GET too', async () => {
    const { port } = new URL(test.url);
    const own = { Host: `127.0.0.1:${port}` };
    expect(await withHeaders({ ...own, 'Sec-Fetch-Site': 'cross-site' })).toBe(403);
    expect(await withHeaders({ ...own, 'Sec-Fetch-Site': 'same-origin' })).toBe(200);
    expect(await withHeaders({ ...own, 'Sec-Fetch-Site': 'none' })).toBe(200);
  });

  it('sends a policy for itself alone and isolates the page', async () => {
    const response = await test.get('/api/collections');
    const policy = response.headers.get('content-security-policy') ?? '';
    expect(policy).toContain("default-src 'self'");
    expect(policy).not.toContain('unsafe-inline');
    expect(policy).toContain("require-trusted-types-for 'script'; trusted-types angular angular#components default");
    expect(policy).toContain("form-action 'none'");
    expect(policy).not.toContain("'unsafe-eval'");
    expect(response.headers.get('cross-origin-opener-policy')).toBe('same-origin');
    expect(response.headers.get('x-powered-by')).toBeNull();
  });

  it('answers what is missing as a problem without a stack', async () => {
    const response = await test.get('/api/nothing');
    const text = await response.text();
    expect(response.status).toBe(404);
    expect(JSON.parse(text)).toMatchObject({ title: 'NOT_FOUND', status: 404 });
    expect(text).not.toContain('.ts:');
  });

  it.each([
    [{ code: 'SQLITE_FULL' }, 507, /disk is full: nothing of this change was saved/],
    [{ original: { code: 'SQLITE_READONLY' } }, 503, /cannot be written: nothing of this change was saved/],
    [{ code: 'ENOSPC' }, 507, /disk is full/],
    [{ parent: { code: 'SQLITE_CORRUPT' } }, 503, /cannot be used \(SQLITE_CORRUPT\)/],
    [new Error('secret path /home/x'), 500, /^The server failed unexpectedly/],
  ])('names trouble under it: %j', (error, status, detail) => {
    let sent = { status: 0, body: '' };
    const response = {
      headersSent: false,
      status: (code: number) => ((sent = { ...sent, status: code }), response),
      type: () => response,
      send: (body: string) => (sent = { ...sent, body }),
    };
    answerProblem(error, { id: 'r', log: { error: () => undefined } } as never, response as never, () => undefined);
    expect(sent.status).toBe(status);
    expect((JSON.parse(sent.body) as { detail: string }).detail).toMatch(detail);
  });
});
