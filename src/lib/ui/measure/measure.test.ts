import { render } from 'svelte/server';
import { describe, expect, it } from 'vitest';
import { plan } from '#core/plan/plan';
import { briefOf } from '#core/protocols/brief';
import { protocolOf, protocolsFor } from '#core/protocols/protocols';
import { testedBuild } from '#core/protocols/tested';
import type { Repeat } from '#core/results/run';
import { anInput } from '../../../../tests/parts';
import BriefPanel from './BriefPanel.svelte';
import ConditionsForm from './ConditionsForm.svelte';
import ConditionsList from './ConditionsList.svelte';
import CopyRepeats from './CopyRepeats.svelte';
import EveningQueue from './EveningQueue.svelte';
import HandTimes from './HandTimes.svelte';
import OtherRuns from './OtherRuns.svelte';
import ProtocolList from './ProtocolList.svelte';
import RunPictures from './RunPictures.svelte';
import SettingsForm from './SettingsForm.svelte';

const HOSTILE = '<img src=x onerror=alert(1)>';
const nothing = () => {};
const textOf = (body: string) =>
  body
    .replace(/<[^>]*>/g, ' ')
    .replace(/&#8239;/g, ' ')
    .replace(/[\s\u202f]+/g, ' ');
const subject = testedBuild(anInput(), plan(anInput()));

describe('what can be measured', () => {
  const body = render(ProtocolList, {
    props: { protocols: protocolsFor('build', 'nvme'), subject, hrefOf: (id) => `/plan?protocol=${id}` }
  }).body;
  it('is asked for by questions, each with what it takes', () => {
    expect(textOf(body)).toContain('Is the connection as fast as forecast?');
    expect(body).toContain('href="/plan?protocol=soak"');
    expect(textOf(body)).toContain('15:00 min');
  });
  it('has no table of block sizes and queues, and no dial', () => {
    expect(textOf(body)).not.toMatch(/\bQ\d+|\bT\d+\b|SEQ|RND/);
    expect(body).not.toContain('<circle');
  });
});

describe('before it starts', () => {
  const body = (id: 'acceptance' | 'soak' | 'copy', set = {}) => {
    const protocol = protocolOf(id);
    return textOf(
      render(BriefPanel, { props: { protocol, brief: briefOf(id, set, subject), subject, onset: nothing } }).body
    );
  };
  it('what has to be put right first stands apart', () =>
    expect(body('acceptance')).toContain('First: It writes over everything on the drive.'));
  it('time, bytes and rest are there', () => {
    expect(body('soak')).toMatch(/Takes 15:00 min Writes .*GB Reads 0 GB/);
    expect(body('soak')).toContain('Rest before the next one');
  });
  it('size and repeats are offered for an accuracy', () => expect(body('copy')).toContain('Within'));
  it('settings carry their unit', () => {
    const form = textOf(
      render(SettingsForm, {
        props: { protocol: protocolOf('copy'), settings: { GB: 40, files: 400 }, others: [], onset: nothing }
      }).body
    );
    expect(form).toContain('Size of the folder, GB');
    expect(form).toContain('Rest in between, s');
  });
  it('the other external is chosen by its name, which is text', () => {
    const form = render(SettingsForm, {
      props: { protocol: protocolOf('cross-copy'), settings: {}, others: [{ id: 'a', name: HOSTILE }], onset: nothing }
    }).body;
    expect(form).not.toContain(HOSTILE);
  });
});

describe('conditions', () => {
  const form = (conditions: object, tried: boolean) =>
    textOf(render(ConditionsForm, { props: { conditions, needed: ['power', 'tool'], tried, onchange: nothing } }).body);
  it('what is needed and missing is said, once somebody has tried', () => {
    expect(form({}, false)).not.toContain('Answer it');
    expect(form({}, true)).toContain('Answer it, or say that you do not know.');
    expect(form({ power: 'mains', notKnown: ['tool'] }, true)).not.toContain('Answer it');
  });
  it('from where to where says whose rate it was', () =>
    expect(form({ source: 'drive', target: 'drive' }, false)).toContain('this is the rate of neither'));
  it('are listed with units, and what nobody knows as that', () => {
    const list = textOf(
      render(ConditionsList, {
        props: { conditions: { ambientC: 21, fan: false, tool: HOSTILE, notKnown: ['bridgeFirmware'], testGB: 5 } }
      }).body
    );
    expect(list).toContain('Room 21 °C');
    expect(list).toContain('Fan none, or off');
    expect(list).toContain('Firmware of the bridge not known');
    expect(list).toContain('Size of the test 5 GB');
    expect(render(ConditionsList, { props: { conditions: { notes: HOSTILE } } }).body).not.toContain(HOSTILE);
    expect(textOf(render(ConditionsList, { props: { conditions: {} } }).body)).toContain('None was written down');
  });
});

describe('repeats', () => {
  const body = (repeats: Repeat[]) => textOf(render(CopyRepeats, { props: { repeats } }).body);
  // 40 GB in 40 s are 1000 MB/s, in 20 s 2000: twice, and by hand 0.28 s of 20 and 40 s are 1.6 % together
  it('say the middle of each way and how the two compare, with the interval', () => {
    const text = body([
      { what: 'copy-in', GB: 40, seconds: 40, byHand: true },
      { what: 'copy-out', GB: 40, seconds: 20, byHand: true }
    ]);
    expect(text).toContain('Copies to the drive: 1000 MB/s, once');
    expect(text).toContain('From the drive: 2 times the copy to the drive');
    expect(text).toContain('Exactly 2 times');
  });
  it('claim no ratio below 20 s', () =>
    expect(
      body([
        { what: 'copy-in', GB: 4, seconds: 12, byHand: true },
        { what: 'copy-out', GB: 4, seconds: 30, byHand: true }
      ])
    ).toContain('too short for a ratio'));
  it('without bytes say how long it took', () =>
    expect(body([{ what: 'task', seconds: 240 }])).toContain('The work: 4:00 min'));
  it('of nothing say nothing', () => expect(body([]).trim()).toBe(''));
});

describe('lists', () => {
  const run = (change: object) => ({
    id: 'A',
    version: 1,
    protocol: 'copy' as const,
    date: '2026-11-20',
    simulated: false,
    results: {},
    series: null,
    rig: null,
    conditions: {},
    ...change
  });
  const body = (change: object) =>
    textOf(render(OtherRuns, { props: { runs: [run(change)], home: '/c/x', onremove: nothing } }).body);
  it.each([
    [{ results: { copyInMBps: 900, copyOutMBps: 1000 } }, 'to the drive 900 MB/s, from the drive 1000 MB/s'],
    [{ results: { limitedBy: 'program' } }, 'the program is the limit'],
    [{ rig: { state: 'running', atS: 30, wantedS: 60 } }, 'is running, 50 %'],
    [{ rig: { state: 'paused', atS: 30, wantedS: 60 } }, 'was cancelled or broken off; it can go on'],
    [{ series: { samples: 60, seconds: 60 } }, '1:00 min sampled'],
    [{}, 'no figures'],
    [{ simulated: true }, 'simulated']
  ])('%j', (change, words) => expect(body(change)).toContain(words));
  it('what runs is not deleted', () =>
    expect(body({ rig: { state: 'running', atS: 1, wantedS: 2 } })).not.toContain('Delete'));
  it('steps by hand have a field each, rests none', () => {
    const text = render(HandTimes, {
      props: {
        phases: [
          { work: 'copy-in', GB: 40, label: 'Copy to the drive' },
          { work: 'rest', seconds: 60, label: 'Rest' }
        ],
        times: [{ text: '500 MB/s', MBps: 500 }],
        running: null,
        ontype: nothing,
        onwatch: nothing
      }
    }).body;
    expect(text.match(/<input/g)).toHaveLength(1);
    expect(textOf(text)).toContain('500 MB/s');
    expect(textOf(text)).toContain('let it rest');
  });
  it('pictures are shown where they are pictures, anything else only offered', () => {
    const picture = (type: string) =>
      render(RunPictures, {
        props: {
          pictures: [{ id: 'P', version: 1, name: HOSTILE, type, size: 2000 }],
          srcOf: (id) => `/files/${id}`,
          busy: false,
          onadd: nothing,
          onremove: nothing
        }
      }).body;
    expect(picture('image/png')).toContain('<img');
    expect(picture('text/html')).not.toContain('<img');
    expect(picture('image/svg+xml')).not.toContain('<img');
    expect(picture('image/png')).not.toContain(HOSTILE);
  });
  it('an evening without builds says so', () =>
    expect(textOf(render(EveningQueue, { props: { builds: [], hrefOf: () => '/' } }).body)).toContain(
      'No build that runs yet'
    ));
});
