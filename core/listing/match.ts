import { capacity, quantity } from '../quantities/format.ts';
import type { Expected, ListedDevice, ListingWarning } from './device.ts';
import { LEAST_IDENTITY, sameSerial, tellingSerial } from './identity.ts';

type Match = { device: string | null; sure: boolean; because: string[] };

/** How far a device may be from the size on its label: makers round, and some keep a part back. */
const SIZE_MARGIN = 0.03;

/** Whether a size can be that of a drive of this capacity; `said` is the size in GB. */
const fits = (said: number, capacityTB: number): boolean =>
  Math.abs(said - capacityTB * 1000) <= SIZE_MARGIN * capacityTB * 1000;

const words = (text: string): string[] => text.toLowerCase().match(/[\p{L}\p{N}]+/gu) ?? [];

/** Whether the name that a device gives holds the words of the name that is expected, or the other way round. */
function sameModel(listed: string, expected: string): boolean {
  const [a, b] = [words(listed), words(expected)];
  if (a.length === 0 || b.length === 0) return false;
  const [few, many] = a.length < b.length ? [a, b] : [b, a];
  return few.every((word) => many.includes(word));
}

/** What a device shows of what is expected. */
function tokensOf(device: ListedDevice, expect: Expected) {
  const listed = tellingSerial(device);
  const serials = [expect.serial, expect.caseSerial].filter((serial) => serial !== undefined);
  const hits = serials.flatMap((serial) => (listed === undefined ? [] : [sameSerial(listed, serial)]));
  const size =
    expect.bytes !== undefined && device.bytes !== null
      ? device.bytes === expect.bytes
      : expect.capacityTB !== undefined && device.approxGB !== null
        ? fits(device.approxGB, expect.capacityTB)
        : undefined;
  return {
    serial: hits.includes('equal') ? ('equal' as const) : hits.includes('part') ? ('part' as const) : null,
    otherSerial: listed !== undefined && serials.length > 0 && hits.every((hit) => hit === null),
    size,
    model: expect.model !== undefined && device.model !== undefined ? sameModel(device.model, expect.model) : undefined
  };
}

function sizeWarning(device: ListedDevice, expect: Expected): ListingWarning[] {
  if (expect.capacityTB === undefined || device.approxGB === null || fits(device.approxGB, expect.capacityTB))
    return [];
  const said = capacity(device.approxGB / 1000);
  const hint = fits(device.approxGB / 1.0995, expect.capacityTB)
    ? ' The listing seems to count in TiB and call them TB, or the other way round.'
    : ' Another drive, a bridge that stops early, or a drive that keeps a part back.';
  return [
    {
      code: 'size-differs',
      device: device.device,
      message: `${device.device} has ${said}, the drive of this build ${capacity(expect.capacityTB)}.${hint}`
    }
  ];
}

const NONE: Match = { device: null, sure: false, because: [] };

/** Finds it by its serial. */
function bySerial(
  devices: readonly ListedDevice[],
  expect: Expected
): { match: Match; warnings: ListingWarning[] } | null {
  const equal = devices.filter((device) => tokensOf(device, expect).serial === 'equal');
  const found =
    equal.length > 0
      ? equal
      : devices.filter((device) => {
          const { serial, size } = tokensOf(device, expect);
          return serial === 'part' && size !== false;
        });
  const [only] = found;
  if (!only) return null;
  if (found.length > 1)
    return {
      match: { ...NONE, because: [`${found.map(({ device }) => device).join(' and ')} show the same serial number.`] },
      warnings: []
    };
  if (only.systemDisk)
    return {
      match: { ...NONE, because: [`The serial number is that of ${only.device}, from which a system runs.`] },
      warnings: []
    };
  const { model, size } = tokensOf(only, expect);
  const because = [
    `Its serial number${equal.length > 0 ? '' : ', as far as it is shown,'} ends in ${(only.serial ?? '').slice(-LEAST_IDENTITY)}.`
  ];
  if (size === true) because.push(`Its size is ${capacity((only.approxGB ?? 0) / 1000)}.`);
  if (model === true) because.push(`It calls itself ${only.model}.`);
  return { match: { device: only.device, sure: equal.length > 0, because }, warnings: sizeWarning(only, expect) };
}

/** Finds it by its size and its name, where it shows no serial to go by. */
function bySize(devices: readonly ListedDevice[], expect: Expected): Match {
  const left = devices.filter((device) => {
    const { size, model, otherSerial } = tokensOf(device, expect);
    return !device.systemDisk && size === true && model !== false && !otherSerial;
  });
  const named = left.filter((device) => tokensOf(device, expect).model === true);
  const [only] = named.length > 0 ? named : left;
  const several = (named.length > 0 ? named : left).length > 1;
  if (!only) {
    const shows = devices.some(
      (device) => tokensOf(device, expect).otherSerial && tokensOf(device, expect).size === true
    );
    return {
      ...NONE,
      because: [
        shows
          ? 'What has this size shows another serial number: another drive, or a case with a serial number of its own. Note it on the item as the case shows it.'
          : 'No device of this size, name and serial number is listed.'
      ]
    };
  }
  if (several) return { ...NONE, because: ['More than one device has this size: unplug the others and list again.'] };
  const because = [`Its size is ${quantity(only.approxGB ?? 0, 'GB')}, and no other that could be it has that.`];
  if (tokensOf(only, expect).model === true) because.push(`It calls itself ${only.model}.`);
  because.push('It shows no serial number to go by: compare what is on it before you trust this.');
  return { device: only.device, sure: false, because };
}

/**
 * Finds the device that is expected among those of a listing: by its serial first, else by size and name; never one from which a system
 * runs, and none where two could be it.
 * @example matchDevice([], {}).match.device // null
 */
export function matchDevice(
  devices: readonly ListedDevice[],
  expect: Expected
): { match: Match; warnings: ListingWarning[] } {
  if (devices.length === 0) return { match: NONE, warnings: [] };
  if (Object.keys(expect).length === 0)
    return { match: { ...NONE, because: ['Nothing was said to look for.'] }, warnings: [] };
  const serial = bySerial(devices, expect);
  if (serial) return serial;
  const match = bySize(devices, expect);
  const external = devices.filter(({ systemDisk, external: outside }) => !systemDisk && outside === true);
  const [alone] = external;
  const warnings = match.device === null && external.length === 1 && alone ? sizeWarning(alone, expect) : [];
  return { match, warnings };
}
