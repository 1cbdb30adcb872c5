import { request as httpRequest } from 'node:http';
import type { Page } from '@playwright/test';
import { crateId, expect, open, test } from './test';

const bare = { kind: 'drive', name: 'bare', media: 'nvme', formFactor: 'm2', capacityTB: 1 };
const host = {
  kind: 'host',
  name: 'h',
  os: { family: 'linux' },
  ports: [{ id: 'p', label: 'p', plug: 'usb-c', modes: ['usb-10g'] }]
};
const enclosure = {
  kind: 'enclosure',
  name: 'e',
  formFactor: 'm2',
  protocols: ['nvme'],
  modes: ['usb-10g'],
  plug: 'usb-c'
};

test.describe('POST /api/plan', () => {
  test('plans parts in full and parts by id alike', async ({ page }) => {
    const full = await page.request.post('/api/plan', { data: { host, portId: 'p', enclosure, drive: bare } });
    expect(full.status()).toBe(200);
    const report = await full.json();
    expect(report.link).toMatchObject({ mode: 'usb-10g', bottleneck: 'port' });
    expect(report.throughput.read).toEqual({ low: 900, typical: 1000, high: 1070 });
    expect(report.assumed.length).toBeGreaterThan(5);

    const id = await crateId(page, 'fernhollow');
    const list = async (kind: string) =>
      (await (await page.request.get(`/api/crates/${id}/models?kind=${kind}`)).json()) as {
        id: string;
        spec: { name: string };
      }[];
    const drive = (await list('drive')).find((d) => d.spec.name === 'Loam S6 1TB')!;
    const stored = await page.request.post('/api/plan', {
      data: { crateId: id, host, portId: 'p', enclosure, drive: { id: drive.id } }
    });
    expect((await stored.json()).findings.map((f: { code: string }) => f.code)).toEqual(
      expect.arrayContaining(['form-factor-mismatch', 'protocol-unsupported'])
    );
  });

  const bad: [string, unknown, number, string][] = [
    ['nothing', {}, 400, 'host'],
    [
      'a negative capacity',
      { host, portId: 'p', enclosure, drive: { ...bare, capacityTB: -1 } },
      400,
      'drive.capacityTB'
    ],
    ['zero', { host, portId: 'p', enclosure, drive: { ...bare, capacityTB: 0 } }, 400, 'drive.capacityTB'],
    ['a huge value', { host, portId: 'p', enclosure, drive: { ...bare, readMBps: 1e300 } }, 400, 'drive.readMBps'],
    ['an unknown field', { host, portId: 'p', enclosure, drive: { ...bare, colour: 'red' } }, 400, 'drive'],
    [
      'a wrong mode',
      { host, portId: 'p', enclosure: { ...enclosure, modes: ['usb-99g'] }, drive: bare },
      400,
      'enclosure.modes.0'
    ],
    ['a port that is not there', { host, portId: 'x', enclosure, drive: bare }, 400, 'portId'],
    [
      'an id without a crate',
      { host, portId: 'p', enclosure, drive: { id: '01ARZ3NDEKTSV4RRFFQ69G5FAV' } },
      400,
      'crateId'
    ],
    [
      'an inner rate above the outer',
      { host, portId: 'p', enclosure, drive: { ...bare, media: 'hdd', disk: { outerMBps: 100, innerMBps: 200 } } },
      400,
      'drive.disk.innerMBps'
    ]
  ];
  for (const [name, data, status, path] of bad) {
    test(`${name}: ${status} at ${path}`, async ({ request }) => {
      const answer = await request.post('/api/plan', { data: data as object });
      expect(answer.status()).toBe(status);
      const { error } = await answer.json();
      expect(error.fields.map((f: { path: string }) => f.path)).toContain(path);
      expect(JSON.stringify(error)).not.toMatch(/\.ts:|\.js:|at \w+ \(/);
    });
  }

  test('other content types 415, oversized 413, broken JSON 400', async ({ request }) => {
    expect((await request.post('/api/plan', { headers: { 'content-type': 'text/plain' }, data: '{}' })).status()).toBe(
      415
    );
    expect(
      (
        await request.post('/api/plan', {
          headers: { 'content-type': 'application/json' },
          data: Buffer.alloc(2_100_000, 32)
        })
      ).status()
    ).toBe(413);
    expect(
      (
        await request.post('/api/plan', {
          headers: { 'content-type': 'application/json' },
          data: Buffer.from('{"host":')
        })
      ).status()
    ).toBe(400);
    expect(
      (
        await request.post('/api/plan', {
          headers: { 'content-type': 'application/json' },
          data: Buffer.from([0xff, 0xfe])
        })
      ).status()
    ).toBe(400);
  });
});

test.describe('stored things', () => {
  test('unknown ids are 404, malformed ones 400, and SQL in them goes nowhere', async ({ page }) => {
    const id = await crateId(page, 'fernhollow');
    const ghost = '01ARZ3NDEKTSV4RRFFQ69G5FAV';
    expect((await page.request.get(`/api/crates/${ghost}`)).status()).toBe(404);
    expect((await page.request.get(`/api/crates/${ghost}/models`)).status()).toBe(404);
    expect((await page.request.get(`/api/crates/${id}/models/${ghost}`)).status()).toBe(404);
    expect((await page.request.get(`/api/crates/${id}/builds/${ghost}/runs`)).status()).toBe(404);
    expect((await page.request.get(`/api/crates/${id}/models/1'%20or%20'1'='1`)).status()).toBe(400);
    expect((await page.request.post(`/api/crates/${ghost}/models`, { data: { spec: bare } })).status()).toBe(404);
  });

  test('a stale version is 409 with the current row, and nothing is overwritten', async ({ page }) => {
    const id = await crateId(page, 'fernhollow');
    const made = await (await page.request.post(`/api/crates/${id}/models`, { data: { spec: bare } })).json();
    const put = (version: number, name: string) =>
      page.request.put(`/api/crates/${id}/models/${made.id}`, { data: { version, spec: { ...bare, name } } });
    expect((await put(1, 'first')).status()).toBe(200);
    const stale = await put(1, 'second');
    expect(stale.status()).toBe(409);
    expect((await stale.json()).error.details.current.name).toBe('first');
    expect((await page.request.delete(`/api/crates/${id}/models/${made.id}`, { data: { version: 2 } })).status()).toBe(
      200
    );
  });

  test('a result above the ceiling is refused with the path; a day to come too', async ({ page }) => {
    const id = await crateId(page, 'fernhollow');
    const builds = (await (await page.request.get(`/api/crates/${id}/builds`)).json()) as { id: string; tag: string }[];
    const build = builds.find((b) => b.tag === 'AC-0003')!;
    const post = (data: object) =>
      page.request.post(`/api/crates/${id}/builds/${build.id}/runs`, {
        data: { protocol: 'pair-check', date: '2026-11-01', conditions: {}, ...data }
      });
    const high = await post({ results: { writeMBps: 950_000 } });
    expect(high.status()).toBe(400);
    expect((await high.json()).error).toMatchObject({
      code: 'implausible',
      fields: [{ path: 'results.writeMBps' }],
      details: { alarms: [{ meant: { value: 950 } }] }
    });
    expect((await post({ results: {} })).status()).toBe(400);
    expect((await (await post({ date: '2999-01-01', results: { writeMBps: 950 } })).json()).error.fields[0].path).toBe(
      'date'
    );
    expect((await post({ date: '2026-02-31', results: { writeMBps: 950 } })).status()).toBe(400);
  });

  test('runs of anything, their series back at any resolution, and what is wrong with one at its path', async ({
    page
  }) => {
    const crate = await page.request.post('/api/crates', { data: { name: 'Runs of anything' } });
    const { id } = (await crate.json()) as { id: string };
    const spec = {
      kind: 'host',
      name: 'Desk',
      os: { family: 'linux' },
      ports: [{ id: 'p', label: 'p', plug: 'usb-c', modes: ['usb-10g'] }]
    };
    const host = (await (await page.request.post(`/api/crates/${id}/models`, { data: { spec } })).json()) as {
      id: string;
    };
    const post = (data: object) =>
      page.request.post(`/api/crates/${id}/runs`, {
        data: {
          subject: { hostId: host.id },
          protocol: 'baseline',
          date: '2026-11-01',
          conditions: {},
          ...data
        }
      });
    const t = Array.from({ length: 5000 }, (_, i) => i + 1);
    const MBps = t.map((s) => (s === 1234 ? 7 : 5000));
    const made = await post({ series: { t, MBps }, conditions: { notKnown: ['tool'] } });
    expect(made.status()).toBe(201);
    const { id: run, version, group } = (await made.json()) as { id: string; version: number; group: string };
    const thin = await (await page.request.get(`/api/crates/${id}/runs/${run}/series?points=100`)).json();
    expect(thin.samples).toBe(5000);
    expect(thin.series.t.length).toBeLessThan(130);
    // the one dip of five thousand samples is still there
    expect(thin.series.MBps[thin.series.t.indexOf(1234)]).toBe(7);
    const csv = await (await page.request.get(`/api/crates/${id}/runs/${run}/series?format=csv`)).text();
    expect(csv.split('\r\n')[0]).toBe('"Time, s","Rate, MB/s"');
    expect((await page.request.get(`/api/crates/${id}/runs/${run}/series?points=3`)).status()).toBe(400);
    const changed = await page.request.put(`/api/crates/${id}/runs/${run}`, {
      data: { version, conditions: { power: 'mains' } }
    });
    expect(changed.status()).toBe(200);
    expect(
      (await page.request.put(`/api/crates/${id}/runs/${run}`, { data: { version, conditions: {} } })).status()
    ).toBe(409);
    const path = async (data: object) => (await (await post(data)).json()).error.fields[0].path;
    expect(await path({ series: { t: [1, 3, 2], MBps: [1, 1, 1] } })).toBe('series.t.2');
    expect(await path({ series: { t: [1, 2], MBps: [1] } })).toBe('series.MBps');
    expect(await path({ results: { writeMBps: 1 }, conditions: { notKnown: ['nothing'] } })).toBe(
      'conditions.notKnown.0'
    );
    expect(await path({})).toBe('results');
    expect(await path({ subject: { hostId: run }, results: { writeMBps: 1 } }).catch(() => 'none')).toBe('none');
    expect(
      (
        await page.request.post(`/api/crates/${id}/undo`, {
          data: { group: ((await changed.json()) as { group: string }).group }
        })
      ).status()
    ).toBe(200);
    expect((await page.request.post(`/api/crates/${id}/undo`, { data: { group } })).status()).toBe(409);
  });

  test('a run of the rig over the API: told from where one was, refused twice on one drive, and never as measured', async ({
    page
  }) => {
    const id = await crateId(page, 'fernhollow');
    const builds = (await (await page.request.get(`/api/crates/${id}/builds`)).json()) as { id: string; tag: string }[];
    const build = builds.find(({ tag }) => tag === 'AC-0012')!;
    const rig = `/api/crates/${id}/builds/${build.id}/rig-runs`;
    const begun = await page.request.post(rig, {
      data: { protocol: 'soak', settings: { seconds: 60 }, speed: 20, seed: 3, date: '2026-01-02' }
    });
    expect(begun.status()).toBe(202);
    const { runId } = (await begun.json()) as { runId: string };
    const busy = await page.request.post(rig, { data: { protocol: 'pair-check', date: '2026-01-02' } });
    expect(busy.status()).toBe(409);
    expect((await busy.json()).error).toMatchObject({ code: 'drive-busy', details: { runId } });
    // Ends by itself when the run does: 60 s at 20 times are three seconds.
    const events = await (
      await page.request.get(`/api/crates/${id}/runs/${runId}/events`, { headers: { 'last-event-id': '10' } })
    ).text();
    expect(events).toContain('"first":10');
    expect(events).not.toContain('"first":0,');
    expect(events).toContain('"state":"done"');
    expect((await (await page.request.get(`/api/crates/${id}/runs/${runId}`)).json()).simulated).toBe(true);
    const csv = await (await page.request.get(`/api/crates/${id}/runs/${runId}/series?format=csv`)).text();
    expect(
      csv
        .trim()
        .split('\r\n')
        .slice(1)
        .every((line) => line.endsWith(',simulated'))
    ).toBe(true);
    expect((await page.request.get(`/api/crates/${id}/runs/${runId}/events?after=x`)).status()).toBe(400);
    expect((await page.request.post(`/api/crates/${id}/runs/${runId}/resume`, { data: {} })).status()).toBe(409);
  });

  test('a crate that is no demo is not reset', async ({ request }) => {
    const made = await (await request.post('/api/crates', { data: { name: 'Own' } })).json();
    expect((await request.post(`/api/crates/${made.id}/reset`, { data: {} })).status()).toBe(409);
  });
});

test.describe('who may ask', () => {
  function raw(headers: Record<string, string>, method = 'GET', path = '/api/crates', body = ''): Promise<number> {
    return new Promise((done, fail) => {
      const sent = httpRequest(
        { host: '127.0.0.1', port: 4319, path, method, headers: { host: '127.0.0.1:4319', ...headers } },
        (answer) => {
          answer.resume();
          done(answer.statusCode ?? 0);
        }
      );
      sent.on('error', fail);
      sent.end(body);
    });
  }
  const json = { 'content-type': 'application/json' };

  test('a foreign name in the Host header is refused', async () => {
    expect(await raw({ host: 'evil.example' })).toBe(421);
    expect(await raw({ host: 'localhost:4319' })).toBe(200);
  });
  test('a post from another site is refused, one from our own page or a script is not', async () => {
    const body = JSON.stringify({ name: 'x' });
    expect(await raw({ ...json, origin: 'http://evil.example' }, 'POST', '/api/crates', body)).toBe(403);
    expect(await raw({ ...json, origin: 'null' }, 'POST', '/api/crates', body)).toBe(403);
    expect(await raw({ ...json, 'sec-fetch-site': 'cross-site' }, 'POST', '/api/crates', body)).toBe(403);
    expect(
      await raw(
        { 'content-type': 'application/x-www-form-urlencoded', origin: 'http://evil.example' },
        'POST',
        '/api/crates',
        'name=x'
      )
    ).toBe(403);
    expect(await raw({ ...json, origin: 'http://127.0.0.1:4319' }, 'POST', '/api/crates', body)).toBe(201);
    expect(await raw(json, 'POST', '/api/crates', body)).toBe(201);
  });
});

test('what is no operation answers in the same shape; an odd query does not break a page', async ({ request }) => {
  const nothing = await request.get('/api/nope');
  expect([nothing.status(), (await nothing.json()).error.code]).toEqual([404, 'not-found']);
  expect((await request.get('/c/fernhollow/builds?sort=constructor&down=maybe')).status()).toBe(200);
  expect((await request.get(`/c/fernhollow/pair?drive=${'x'.repeat(3000)}`)).status()).toBe(200);
  expect((await request.get('/c/fernhollow/crate/toaster')).status()).toBe(404);
});

test('the OpenAPI document is served', async ({ request }) => {
  const document = await (await request.get('/api/openapi.json')).json();
  expect(document.openapi).toBe('3.1.0');
  expect(Object.keys(document.paths)).toContain('/api/plan');
});

test.describe('the crate over the API', () => {
  type Json = Record<string, unknown> & { id: string; version: number; group: string };
  const fresh = async (page: Page) => {
    const made = (await (await page.request.post('/api/crates', { data: { name: 'API crate' } })).json()) as Json;
    const base = `/api/crates/${made.id}`;
    const model = (await (
      await page.request.post(`${base}/models`, { data: { spec: { ...bare, name: '=1+1' } } })
    ).json()) as Json;
    return { base, model };
  };

  test('what slips through no single field is refused with its path', async ({ page }) => {
    const { base, model } = await fresh(page);
    const quote = { partId: model.id, vendor: 'v', date: '2026-01-01', currency: 'EUR', list: 10 };
    const unit = (await (
      await page.request.post(`${base}/units`, { data: { modelId: model.id, tag: 'A/1?#%', state: 'owned' } })
    ).json()) as Json;
    const items = [{ id: unit.id, version: 1 }];
    const slips: [string, string, string, unknown, string][] = [
      ['a coupon above the price', 'POST', 'quotes', { ...quote, coupon: 11 }, 'coupon'],
      ['run out before it was made', 'POST', 'quotes', { ...quote, expires: '2025-12-31' }, 'expires'],
      ['a quote of a day to come', 'POST', 'quotes', { ...quote, date: '2999-01-01' }, 'date'],
      ['a currency in itself', 'POST', 'rates', { from: 'EUR', to: 'EUR', rate: 1, date: '2026-01-01' }, 'from'],
      ['one thing twice', 'PUT', 'units/many', { items: [...items, ...items], set: { location: 'x' } }, 'items'],
      ['nothing to set', 'PUT', 'units/many', { items, set: {} }, 'set'],
      [
        'another kind',
        'PUT',
        'models/many',
        { items: [{ id: model.id, version: 1 }], set: { kind: 'pad' } },
        'set.kind'
      ],
      ['due back long ago', 'POST', 'units/check-out', { items, to: 'me', dueBack: '1999-01-01' }, 'dueBack'],
      ['a tag that is taken', 'POST', 'units', { modelId: model.id, tag: 'A/1?#%', state: 'owned' }, 'tag'],
      ['too many units', 'POST', 'units/many', { count: 201, unit: { modelId: model.id, state: 'owned' } }, 'count'],
      [
        'a file without content',
        'POST',
        'attachments',
        { subjectTable: 'models', subjectId: model.id, name: 'x', type: 'a/b', content: '?' },
        'content'
      ],
      [
        'a matching to no field',
        'POST',
        'import/preview',
        { what: 'models', kind: 'drive', format: 'csv', text: 'a\n1\n', mapping: ['no'] },
        'mapping.0'
      ]
    ];
    for (const [what, method, path, data, field] of slips) {
      const answer = await page.request.fetch(`${base}/${path}`, { method, data });
      expect(answer.status(), what).toBe(400);
      const { error } = (await answer.json()) as { error: { fields: { path: string }[] } };
      expect(
        error.fields.map((f) => f.path),
        what
      ).toContain(field);
    }
    await open(page, `/c/fernhollow`);
    expect((await page.request.get(`${base}/quotes`)).ok()).toBe(true);
    expect(await (await page.request.get(`${base}/quotes`)).json()).toEqual([]);
  });

  test('units go out and come back, retire, and every step can be taken back once', async ({ page }) => {
    const { base, model } = await fresh(page);
    const many = (await (
      await page.request.post(`${base}/units/many`, { data: { count: 2, unit: { modelId: model.id, state: 'owned' } } })
    ).json()) as Json & { tags: string[] };
    expect(many.tags).toEqual(['D-001', 'D-002']);
    const rows = async () =>
      (
        (await (await page.request.get(`${base}/units/table`)).json()) as {
          rows: { id: string; version: number; unit: Record<string, unknown> }[];
        }
      ).rows;
    const items = async () => (await rows()).map(({ id, version }) => ({ id, version }));
    const out = await page.request.post(`${base}/units/check-out`, {
      data: { items: await items(), to: 'field crew', dueBack: '2999-01-01' }
    });
    expect((await rows()).map((r) => r.unit.custodian)).toEqual(['field crew', 'field crew']);
    await page.request.put(`${base}/units/many`, { data: { items: await items(), set: { state: 'retired' } } });
    for (const { unit } of await rows()) {
      expect(unit.state).toBe('retired');
      expect(unit).not.toHaveProperty('custodian');
    }
    const { group } = (await out.json()) as Json;
    const early = await page.request.post(`${base}/undo`, { data: { group } });
    expect(early.status()).toBe(409);
    expect((await early.json()).error.message).toContain('undo the later change first');
    const last = (await (
      await page.request.put(`${base}/units/many`, { data: { items: await items(), set: { notes: 'x' } } })
    ).json()) as Json;
    expect((await page.request.post(`${base}/undo`, { data: { group: last.group } })).status()).toBe(200);
    const again = await page.request.post(`${base}/undo`, { data: { group: last.group } });
    expect((await again.json()).error.message).toBe('This has been undone already.');
  });

  test('a CSV that is taken out cannot be run by a spreadsheet, and comes in as nothing new', async ({ page }) => {
    const { base } = await fresh(page);
    const csv = await (await page.request.get(`${base}/export?what=models&kind=drive&format=csv`)).text();
    expect(csv).toContain("'=1+1");
    const preview = await page.request.post(`${base}/import/preview`, {
      data: { what: 'models', kind: 'drive', format: 'csv', text: csv }
    });
    expect((await preview.json()).counts).toEqual({ new: 0, changed: 0, same: 1, wrong: 0 });
  });

  test('a file comes down as it went up, and never as a page', async ({ page }) => {
    const { base, model } = await fresh(page);
    const content = Buffer.from('<script>alert(1)</script>');
    const made = (await (
      await page.request.post(`${base}/attachments`, {
        data: {
          subjectTable: 'models',
          subjectId: model.id,
          name: '../../ümlaut".html',
          type: 'text/html',
          content: content.toString('base64')
        }
      })
    ).json()) as Json;
    const file = await page.request.get(`${base}/attachments/${made.id}`);
    expect(await file.body()).toEqual(content);
    expect(file.headers()['content-disposition']).toMatch(/^attachment; filename="[^"/]*"/);
    expect(file.headers()['x-content-type-options']).toBe('nosniff');
    expect(file.headers()['content-security-policy']).toContain('sandbox');
  });

  test('an import tells how far it is and is all or nothing', async ({ page }) => {
    const { base } = await fresh(page);
    const lines = Array.from({ length: 3000 }, (_, i) => `Mass ${i},nvme,m2,1`).join('\n');
    const text = `Name,Media,Form factor,"Capacity, TB"\n${lines}\n`;
    const start = async (wholeText: string) =>
      (await (
        await page.request.post(`${base}/import`, {
          data: { what: 'models', kind: 'drive', format: 'csv', text: wholeText }
        })
      ).json()) as { id: string };
    const ended = async (id: string) => {
      await expect
        .poll(async () => (await (await page.request.get(`/api/tasks/${id}`)).json()).state, { timeout: 30_000 })
        .not.toBe('running');
      return (await (await page.request.get(`/api/tasks/${id}`)).json()) as { state: string; done: number };
    };
    const total = async () =>
      (await (await page.request.get(`${base}/models/table?kind=drive`)).json()).total as number;
    const bad = await start(`${text}Bad,nvme,m2,-1\n`);
    expect((await ended(bad.id)).state).toBe('failed');
    expect(await total()).toBe(1);
    const good = await start(text);
    expect(await ended(good.id)).toMatchObject({ state: 'done', done: 3000 });
    expect(await total()).toBe(3001);
  });
});

test('a run sheet and a search for a cause over the API: made for the parts, refused with the path', async ({
  request
}) => {
  const parts = {
    host: {
      kind: 'host',
      name: 'laptop',
      os: { family: 'macos' },
      ports: [{ id: 'p', label: 'left', plug: 'usb-c', modes: ['usb-10g'] }]
    },
    portId: 'p',
    enclosure: {
      kind: 'enclosure',
      name: 'case',
      formFactor: '2.5in',
      protocols: ['sata'],
      modes: ['usb-10g'],
      plug: 'usb-c',
      retention: 'screw',
      opening: 'screws',
      screws: { head: 'star', count: 4 }
    },
    drive: { kind: 'drive', name: 'drive', media: 'sata-ssd', formFactor: '2.5in', capacityTB: 1, thicknessMm: 7 }
  };
  type Made = { tools: string[]; stages: { steps: { code: string }[]; check: string }[]; leads: { plug: string[] } };
  const made = (await (await request.post('/api/run-sheet', { data: { ...parts, units: 2 } })).json()) as Made;
  const codes = made.stages.flatMap(({ steps }) => steps.map(({ code }) => code));
  for (const code of ['tag-parts', 'fit-spacer', 'start-screws', 'fasten-crosswise', 'fasten-lid', 'keep-spares'])
    expect(codes).toContain(code);
  for (const code of ['insert-slanted', 'peel-liner', 'connect-supply']) expect(codes).not.toContain(code);
  expect(made.tools.join()).toContain('star driver');
  expect(made.leads.plug.length).toBeGreaterThan(1);

  type Found = { ask: { test: string } | null; end: string | null; causes: { cause: string; backTo?: string }[] };
  const look = async (data: object) => request.post('/api/trouble', { data: { ...parts, ...data } });
  const first = (await (await look({ symptom: 'asks-to-initialise', answers: [] })).json()) as Found;
  expect(first.ask?.test).toBe('new-drive');
  const answers = [{ test: 'new-drive', outcome: 'never' }];
  const end = (await (await look({ symptom: 'asks-to-initialise', answers })).json()) as Found;
  expect(end).toMatchObject({ ask: null, end: 'cause', causes: [{ cause: 'not-initialised', backTo: 'look-for-it' }] });

  for (const [path, data, field] of [
    ['/api/run-sheet', { ...parts, units: 0 }, 'units'],
    ['/api/run-sheet', { ...parts, from: 'shop' }, 'from'],
    ['/api/trouble', { ...parts, symptom: 'sings', answers: [] }, 'symptom'],
    [
      '/api/trouble',
      { ...parts, symptom: 'slow', answers: [{ test: 'disk-list', outcome: 'right' }] },
      'answers.0.test'
    ],
    [
      '/api/trouble',
      { ...parts, symptom: 'slow', answers: [{ test: 'how-full', outcome: 'blue' }] },
      'answers.0.outcome'
    ]
  ] as const) {
    const answer = await request.post(path, { data });
    expect(answer.status(), path).toBe(400);
    const { error } = (await answer.json()) as { error: { fields: { path: string }[] } };
    expect(error.fields.map((one) => one.path)).toContain(field);
  }
});
