import { readFileSync } from 'node:fs';
import { request as httpRequest } from 'node:http';
import { join } from 'node:path';
import type { PatchOperation } from '@periwinkle/core/patch/operations';
import { Caller, FIELD, RAW } from './test/caller';
import { startTestServer, type TestServer } from './test/test-server';

let server: TestServer;
beforeAll(async () => {
  server = await startTestServer();
}, 60_000);
afterAll(() => server?.close());

const caller = new Caller(() => server.url);
const call = caller.call.bind(caller);
const revision = caller.revision.bind(caller);
const patch = caller.patch.bind(caller);

/** Place of the rule for a pointed-at field in the demo. */
const OVER = (
  JSON.parse(
    readFileSync(join(__dirname, '../demo/quayside/components/text-field.component.json'), 'utf8'),
  ) as { rules: { id: string }[] }
).rules.findIndex(({ id }) => id === 'over');
const overColor = `/rules/${OVER}/set/frame/border-color`;
const ruleText = async (): Promise<unknown> => {
  const { body } = await call('GET', FIELD);
  return (body['rules'] as { set: Record<string, Record<string, string>> }[])[OVER]!.set['frame']![
    'border-color'
  ];
};

describe('the order of names that look like numbers', () => {
  test('survives importing, storing, an edit, its undo and the whole system', async () => {
    const tokens = (fifty: number): string =>
      `{"slate":{"900":{"$value":1},"50":{"$value":${fifty}},"$type":"number"},"2":{"$type":"number","x":{"$value":3}}}`;
    const manifest = '{"format":"periwinkle-system/1","id":"ordered","title":"Ordered","prefix":"o"}';
    const made = await call(
      'POST',
      '/api/systems',
      `{"documents":{"system.json":${manifest},"tokens/a.tokens.json":${tokens(2)}}}`,
      { 'Content-Type': 'application/json' },
    );
    expect(made.status).toBe(201);
    const path = '/api/systems/ordered/documents/tokens/a.tokens.json';
    const stored = async (): Promise<string> =>
      (await (await fetch(server.url + path)).text()).replace(/\s+/g, '');
    expect(await stored()).toBe(tokens(2));
    expect((await patch(path, [{ op: 'replace', path: '/slate/50/$value', value: 7 }])).status).toBe(200);
    expect(await stored()).toBe(tokens(7));
    expect((await call('POST', '/api/systems/ordered/undo')).status).toBe(200);
    expect(await stored()).toBe(tokens(2));
    const whole = await (await fetch(`${server.url}/api/systems/ordered`)).text();
    expect(whole).toContain(tokens(2));
  });
});

describe('editing', () => {
  test('an edit is stored with a new revision, and undone and redone from the stored history', async () => {
    const before = await ruleText();
    const answer = await patch(FIELD, [{ op: 'replace', path: overColor, value: '{color.line.right}' }], {
      'Periwinkle-Label': encodeURIComponent('line greener'),
    });
    expect(answer.status).toBe(200);
    expect(answer.etag).toBe(await revision(FIELD));
    expect(await ruleText()).toBe('{color.line.right}');
    const { body: whole } = await call('GET', '/api/systems/quayside');
    expect(whole['history']).toMatchObject({ undo: { label: 'line greener' }, redo: null });
    expect((await call('POST', '/api/systems/quayside/undo')).status).toBe(200);
    expect(await ruleText()).toBe(before);
    expect((await call('GET', '/api/systems/quayside')).body['history']).toMatchObject({
      redo: { label: 'line greener' },
    });
    expect((await call('POST', '/api/systems/quayside/redo')).status).toBe(200);
    expect(await ruleText()).toBe('{color.line.right}');
    await call('POST', '/api/systems/quayside/undo');
  });

  test('undo goes back through everything, in order; a new edit ends what could be brought back', async () => {
    const values = ['#101010', '#202020', '#303030'];
    const original = await ruleText();
    for (const value of values) await patch(FIELD, [{ op: 'replace', path: overColor, value }]);
    const seen: unknown[] = [];
    for (let i = 0; i < 3; i++) {
      await call('POST', '/api/systems/quayside/undo');
      seen.push(await ruleText());
    }
    expect(seen).toEqual(['#202020', '#101010', original]);
    await call('POST', '/api/systems/quayside/redo');
    expect(await ruleText()).toBe('#101010');
    await patch(FIELD, [{ op: 'replace', path: overColor, value: '#404040' }]);
    expect((await call('POST', '/api/systems/quayside/redo')).status).toBe(409);
    await call('POST', '/api/systems/quayside/undo');
    expect(await ruleText()).toBe('#101010');
    await call('POST', '/api/systems/quayside/undo');
    expect(await ruleText()).toBe(original);
  });

  test('both ends of the history are told by label', async () => {
    const headers = { 'Periwinkle-Label': encodeURIComponent('Mooring lines in violet') };
    await patch(FIELD, [{ op: 'replace', path: overColor, value: '#a0a0ff' }], headers);
    const ends = async () => (await call('GET', '/api/systems/quayside/history')).body;
    expect(await ends()).toMatchObject({ undo: { label: 'Mooring lines in violet' }, redo: null });
    await call('POST', '/api/systems/quayside/undo');
    expect(await ends()).toMatchObject({ redo: { label: 'Mooring lines in violet' } });
    expect((await call('GET', '/api/systems/nothing/history')).status).toBe(404);
  });

  test('what is taken out and brought back stands where it stood', async () => {
    const text = async () => (await fetch(server.url + FIELD)).text();
    const before = await text();
    await patch(FIELD, [{ op: 'remove', path: '/rules/0/set/frame/height' }]);
    await call('POST', '/api/systems/quayside/undo');
    expect(await text()).toBe(before);
  });

  test('a step that is asked for twice under one name is done once', async () => {
    const ends = async () => (await call('GET', '/api/systems/quayside/history')).body;
    await patch(FIELD, [{ op: 'replace', path: '/summary', value: 'One.' }], { 'Periwinkle-Label': 'One' });
    await patch(FIELD, [{ op: 'replace', path: '/summary', value: 'Two.' }], { 'Periwinkle-Label': 'Two' });
    const step = () => call('POST', '/api/systems/quayside/undo', undefined, { 'Idempotency-Key': 'a-step' });
    const [first, second] = [await step(), await step()];
    expect(second.body).toEqual(first.body);
    expect(await ends()).toMatchObject({ undo: { label: 'One' }, redo: { label: 'Two' } });
    await call('POST', '/api/systems/quayside/undo');
  });

  test('edits of one change are undone together', async () => {
    const text = async (path: string) => (await fetch(server.url + path)).text();
    const before = [await text(RAW), await text(FIELD)];
    const change = { 'Periwinkle-Change': 'both' };
    await patch(
      RAW,
      [{ op: 'add', path: '/raw/line/bold', value: { $value: { value: 3, unit: 'px' } } }],
      change,
    );
    await patch(
      FIELD,
      [{ op: 'replace', path: '/rules/0/set/frame/border-width', value: '{raw.line.bold}' }],
      change,
    );
    const read = async () => [await text(RAW), await text(FIELD)];
    expect((await read()).map(each => each.includes('bold'))).toEqual([true, true]);
    expect((await call('POST', '/api/systems/quayside/undo')).body).toHaveLength(2);
    expect(await read()).toEqual(before);
  });

  test('edits are listed from one that is known on, oldest first', async () => {
    const list = async (query: string): Promise<number[]> => {
      const { body } = await call('GET', `/api/systems/quayside/edits?${query}`);
      return (body as unknown as { id: number }[]).map(edit => edit.id);
    };
    const all = await list('after=0');
    expect(all).toEqual(all.map((_, index) => index + 1));
    expect(await list(`after=${all.at(-3)}`)).toEqual(all.slice(-2));
    expect(await list(`after=${all.at(-1)}`)).toEqual([]);
    expect((await call('GET', '/api/systems/quayside/edits?after=nonsense')).status).toBe(400);
  });

  test('the same edit sent twice is stored once', async () => {
    const headers = { 'Idempotency-Key': 'once', 'If-Match': await revision(FIELD) };
    const operations: PatchOperation[] = [{ op: 'replace', path: overColor, value: '#515151' }];
    const first = await patch(FIELD, operations, headers);
    const second = await patch(FIELD, operations, headers);
    expect([first.status, second.status]).toEqual([200, 200]);
    expect(second.body['id']).toBe(first.body['id']);
    await call('POST', '/api/systems/quayside/undo');
  });

  test('of edits sent at the same moment on one revision exactly one is taken; all follow in the end', async () => {
    const start = await revision(FIELD);
    const answers = await Promise.all(
      Array.from({ length: 8 }, (_, index) =>
        patch(FIELD, [{ op: 'replace', path: '/summary', value: `at once ${index}` }], { 'If-Match': start }),
      ),
    );
    expect(answers.filter(each => each.status === 200)).toHaveLength(1);
    expect(answers.filter(each => each.status === 412)).toHaveLength(7);
    await call('POST', '/api/systems/quayside/undo');
  });
});

describe('what is broken is refused, located, and changes nothing', () => {
  const unchanged = async (work: () => Promise<void>): Promise<void> => {
    const before = [await revision(FIELD), await revision(RAW)];
    await work();
    expect([await revision(FIELD), await revision(RAW)]).toEqual(before);
  };

  test.each<[string, string, PatchOperation[], object]>([
    [
      'a misspelt property',
      FIELD,
      [{ op: 'add', path: '/rules/0/set/frame/border-colour', value: '#111111' }],
      { code: 'unknown-property', pointer: '/rules/0/set/frame/border-colour', suggestion: 'border-color' },
    ],
    [
      'an unknown token',
      FIELD,
      [{ op: 'replace', path: overColor, value: '{color.line.ovr}' }],
      { code: 'unknown-token', pointer: overColor, suggestion: '{color.line.over}' },
    ],
    [
      'an axis that does not exist',
      FIELD,
      [{ op: 'add', path: '/rules/-', value: { id: 'x', when: { pointr: 'over' }, set: {} } }],
      { code: 'unknown-axis', suggestion: 'pointer' },
    ],
    [
      'a value of the wrong type',
      FIELD,
      [{ op: 'replace', path: overColor, value: '{raw.line.hair}' }],
      { code: 'wrong-type', pointer: overColor },
    ],
    [
      'a literal of the wrong type',
      FIELD,
      [{ op: 'replace', path: overColor, value: '12px' }],
      { code: 'wrong-value', pointer: overColor },
    ],
    [
      'an alias cycle',
      RAW,
      [
        { op: 'replace', path: '/raw/space/1/$value', value: '{raw.space.2}' },
        { op: 'replace', path: '/raw/space/2/$value', value: '{raw.space.1}' },
      ],
      { code: 'reference-cycle' },
    ],
    [
      'a key the schema does not know',
      FIELD,
      [{ op: 'add', path: '/sumary', value: 'x' }],
      { code: 'unknown-key', suggestion: 'summary' },
    ],
    [
      'a token that is still used',
      RAW,
      [{ op: 'remove', path: '/raw/line/hair' }],
      { code: 'unknown-token' },
    ],
  ])('%s', (_, path, operations, problem) =>
    unchanged(async () => {
      const answer = await patch(path, operations);
      expect(answer.status).toBe(422);
      expect(answer.type).toContain('application/problem+json');
      expect(answer.body.problems).toEqual(expect.arrayContaining([expect.objectContaining(problem)]));
    }),
  );

  test('a stale revision is told what has happened since', async () => {
    const stale = await revision(FIELD);
    await patch(FIELD, [{ op: 'replace', path: '/summary', value: 'Changed elsewhere.' }]);
    await unchanged(async () => {
      const answer = await patch(FIELD, [{ op: 'replace', path: '/title', value: 'Mine' }], {
        'If-Match': stale,
      });
      expect(answer.status).toBe(412);
      expect(answer.body['since']).toEqual([
        expect.objectContaining({
          patch: [{ op: 'replace', path: '/summary', value: 'Changed elsewhere.' }],
        }),
      ]);
    });
    await call('POST', '/api/systems/quayside/undo');
  });

  test('protocol errors each have their status', () =>
    unchanged(async () => {
      const type = { 'Content-Type': 'application/json-patch+json' };
      const match = { 'If-Match': await revision(FIELD) };
      const good = JSON.stringify([{ op: 'replace', path: '/title', value: 'x' }]);
      const status = async (body: string, headers: Record<string, string>): Promise<number> =>
        (await call('PATCH', FIELD, body, headers)).status;
      expect(await status(good, type)).toBe(428);
      expect(await status(good, { ...type, 'If-Match': '*' })).toBe(400);
      expect(await status('{"not json', { ...type, ...match })).toBe(400);
      expect(await status('[{"op":"replace"}]', { ...type, ...match })).toBe(400);
      expect(await status('[]', { ...type, ...match })).toBe(400);
      expect(await status(good, { ...match, 'Content-Type': 'text/plain' })).toBe(415);
      expect(await status(good, { ...type, ...match, Origin: 'http://elsewhere.example' })).toBe(403);
      expect(await status(good, { ...type, ...match, 'Sec-Fetch-Site': 'cross-site' })).toBe(403);
      expect(
        await status(`[{"op":"replace","path":"/title","value":"${'x'.repeat(30 * 1024 * 1024)}"}]`, {
          ...type,
          ...match,
        }),
      ).toBe(413);
      expect((await call('GET', '/api/systems/nowhere')).status).toBe(404);
      expect((await call('GET', '/api/systems/quayside/documents/components/../../x')).status).toBe(404);
      expect((await call('GET', '/api/nothing')).status).toBe(404);
    }));

  test('`__proto__` is refused in paths and in values, where another name is taken', async () => {
    const withName = async (name: string): Promise<number[]> => {
      const bodies = [
        `[{"op":"add","path":"/guide/${name}","value":"A word."}]`,
        `[{"op":"move","from":"/guide/word","path":"/guide/${name}"}]`,
        `[{"op":"replace","path":"/guide","value":{"${name}":"A word."}}]`,
      ];
      const statuses = [];
      for (const body of bodies) {
        const headers = { 'Content-Type': 'application/json-patch+json', 'If-Match': await revision(FIELD) };
        statuses.push((await call('PATCH', FIELD, body, headers)).status);
      }
      return statuses;
    };
    expect(await withName('word')).toEqual([200, 200, 200]);
    expect(await withName('__proto__')).toEqual([409, 409, 400]);
    const { body } = await call('GET', FIELD);
    expect(body['guide']).toEqual({ word: 'A word.' });
    expect(Object.prototype).not.toHaveProperty('word');
    for (let step = 0; step < 3; step++) await call('POST', '/api/systems/quayside/undo');
  });

  test('a foreign host name is not answered', async () => {
    const { port } = new URL(server.url);
    const status = await new Promise<number>(resolve =>
      httpRequest(
        { host: '127.0.0.1', port, path: '/api/systems', headers: { Host: 'rebound.example' } },
        response => resolve(response.statusCode!),
      ).end(),
    );
    expect(status).toBe(421);
  });
});

describe('systems', () => {
  test('a system is copied, removed, put back; a taken id is refused', async () => {
    const copy = JSON.stringify({ id: 'copy', title: 'A copy' });
    const json = { 'Content-Type': 'application/json' };
    expect((await call('POST', '/api/systems/quayside/duplicate', copy, json)).status).toBe(201);
    expect((await call('POST', '/api/systems/quayside/duplicate', copy, json)).status).toBe(409);
    expect((await call('DELETE', '/api/systems/copy')).status).toBe(204);
    expect((await call('GET', '/api/systems/copy')).status).toBe(404);
    expect((await call('POST', '/api/systems/copy/restore')).status).toBe(204);
    const { body } = await call('GET', '/api/systems/copy');
    expect(body).toMatchObject({ id: 'copy', title: 'A copy' });
  });

  test('a broken system is refused as a whole with every problem', async () => {
    const documents = {
      'system.json': { format: 'periwinkle-system/1', id: 'broken', title: 'B', prefix: 'b' },
      'components/a.component.json': {
        format: 'periwinkle-component/1',
        id: 'a',
        anatomy: { part: 'root', kind: 'stak' },
      },
      'tokens/a.tokens.json': { x: { $type: 'colour', $value: '#fff' } },
    };
    const answer = await call('POST', '/api/systems', JSON.stringify({ documents }), {
      'Content-Type': 'application/json',
    });
    expect(answer.status).toBe(422);
    expect(answer.body.problems!.map(problem => problem.code).sort()).toEqual([
      'unknown-kind',
      'unknown-type',
    ]);
    expect((await call('GET', '/api/systems/broken')).status).toBe(404);
  });
});
