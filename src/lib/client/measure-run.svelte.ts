import { goto } from '$app/navigation';
import { STAGE_LABEL, type BuildStage } from '#core/build/stages';
import type { RunAlarm } from '#core/protocols/gates';
import type { ProtocolId } from '#core/results/protocol-ids';
import type { RunInput, Subject } from '#core/results/run';
import type { Conditions } from '#core/results/conditions';
import type { Settings } from '#core/results/settings';
import type { SimulatedFault } from '#core/simulate/faults';
import { notices } from '$lib/ui/frame/notices.svelte';
import { send } from './api';
import { changesOf } from './change';
import { preparePhoto } from './photo';

export type RigAsked = {
  settings: Settings;
  conditions: Conditions;
  fault?: SimulatedFault;
  speed: number;
  seed?: number;
};

type Measured = {
  crateId: string;
  home: string;
  subject: Subject;
  /** The build that is measured, where it is one. */
  build?: { id: string; tag: string; stage: BuildStage; version: number };
};

/** Keeping and beginning runs, as the pages that measure share it. */
export class MeasureRun {
  refused = $state.raw<{ fields: Record<string, string>; alarms: readonly RunAlarm[] }>({ fields: {}, alarms: [] });
  busy = $state(false);
  readonly #of: () => Measured;

  constructor(of: () => Measured) {
    this.#of = of;
  }

  /** Keeps a result. @returns whether it was kept; what stands in the way is in `refused` */
  async keep(run: RunInput, then?: () => void, picture?: File): Promise<boolean> {
    let made: string | undefined;
    const { crateId, home, subject, build } = this.#of();
    this.busy = true;
    const refusal = await changesOf(crateId)(
      'POST',
      `/api/crates/${crateId}/runs`,
      { ...run, subject },
      {
        words: ({ id }: { id: string }) => {
          made = id;
          return 'The result is kept.';
        },
        ...(then ? { then } : { to: ({ id }: { id: string }) => `${home}/runs/${id}` })
      }
    );
    this.busy = false;
    this.refused = {
      fields: Object.fromEntries(refusal?.fields.map((field) => [field.path, field.message]) ?? []),
      alarms: (refusal?.details.alarms as RunAlarm[] | undefined) ?? []
    };
    if (!refusal && made && picture) await this.addPicture(made, picture);
    // A first result is what the stage measured (`benched`) means.
    if (!refusal && build?.stage === 'formatted')
      await changesOf(crateId)(
        'PUT',
        `/api/crates/${crateId}/builds/${build.id}/stage`,
        { version: build.version, stage: 'benched' },
        `${build.tag} is now ${STAGE_LABEL.benched}.`
      );
    return refusal === undefined;
  }

  /** Keeps a picture beside a run: turned upright, made small, and without anything but the picture in it. */
  async addPicture(runId: string, file: File): Promise<void> {
    const { crateId } = this.#of();
    const photo = await preparePhoto(file);
    if (!photo.ok) return notices.add('error', photo.message);
    const body = {
      subjectTable: 'runs',
      subjectId: runId,
      name: photo.name,
      type: 'image/jpeg',
      content: photo.base64
    };
    await changesOf(crateId)('POST', `/api/crates/${crateId}/attachments`, body, `Added ${photo.name}.`);
  }

  /** Begins a run on the rig, and goes to its page. */
  async rig(buildId: string, protocol: ProtocolId, asked: RigAsked): Promise<void> {
    const { crateId, home } = this.#of();
    this.busy = true;
    const answer = await send<{ runId: string }>('POST', `/api/crates/${crateId}/builds/${buildId}/rig-runs`, {
      protocol,
      ...asked
    });
    this.busy = false;
    if (answer.ok) return void goto(`${home}/runs/${answer.data.runId}`);
    notices.add('error', answer.failure.message);
    this.refused = {
      fields: Object.fromEntries(answer.failure.fields.map(({ path, message }) => [path, message])),
      alarms: []
    };
  }
}
