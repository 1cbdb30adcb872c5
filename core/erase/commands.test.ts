import { execFileSync } from 'node:child_process';
import { describe, expect, it } from 'vitest';
import { Shescape } from 'shescape';
import { canAsk, eraseCommands, type EraseOrder } from './commands';

const shells = ['/bin/bash', '/bin/dash'] as const;
const quoteFor = (shell: string) => {
  const library = new Shescape({ shell, flagProtection: false });
  return (text: string) => library.quote(text);
};
const order = (change: Partial<EraseOrder>): EraseOrder => ({
  system: 'linux',
  device: '/dev/sdb',
  proof: { serial: 'FH24A07733' },
  filesystem: 'ext4',
  scheme: 'gpt',
  name: 'SCANS',
  ...change
});

/** Runs a command in a shell in which the tools are stand-ins: they say what is asked, and write down what they are told to do. */
function run(
  shell: string,
  command: string,
  says: { serial?: string; bytes?: number; mounts?: string; report?: string; info?: string }
): { did: string; said: string } {
  const script = `
did=$(mktemp)
sudo() { printf '%s\\n' "$*" >> "$did"; }
lsblk() {
  case "$1 $2 $3" in
    *SERIAL*) printf '%s  \\n' "$SERIAL" ;;
    *SIZE*) printf '%s\\n' "$BYTES" ;;
    *) printf '%s\\n' "$MOUNTS" ;;
  esac
}
system_profiler() { printf '%s' "$REPORT"; }
diskutil() { if [ "$1" = info ]; then printf '%s' "$INFO"; else printf 'diskutil %s\\n' "$*" >> "$did"; fi; }
${command}
cat "$did"; rm -f "$did"`;
  const env = {
    PATH: process.env.PATH ?? '',
    SERIAL: says.serial ?? '',
    BYTES: String(says.bytes ?? ''),
    MOUNTS: says.mounts ?? '',
    REPORT: says.report ?? '',
    INFO: says.info ?? ''
  };
  const out = execFileSync(shell, [...(shell.endsWith('bash') ? ['--norc'] : []), '-c', `exec 2>&1\n${script}`], {
    env,
    encoding: 'utf8'
  });
  return {
    did: out
      .split('\n')
      .filter((line) => !line.startsWith('This is not'))
      .join('\n')
      .trim(),
    said: out
  };
}

describe.each(shells)('in %s', (shell) => {
  const quote = quoteFor(shell);

  it('what the library quotes arrives as it was', () => {
    for (const odd of ["A1'; rm -rf $HOME #", '`id`$(id)"', 'a b  c', '\\n%s\\', '-rf', '*?[a]~!', 'ümläut €'])
      expect(
        execFileSync(shell, [...(shell.endsWith('bash') ? ['--norc'] : []), '-c', `printf '%s' ${quote(odd)}`], {
          encoding: 'utf8'
        })
      ).toBe(odd);
  });

  it('the device that answers with its serial is made anew, in three steps', () => {
    const did = eraseCommands(order({}), quote).map((command) => run(shell, command, { serial: 'FH24A07733' }).did);
    expect(did[0]).toContain('wipefs --all /dev/sdb');
    expect(did[1]).toBe('parted --script --align optimal /dev/sdb mklabel gpt mkpart SCANS ext4 1MiB 100%');
    expect(did[2]).toBe('mkfs.ext4 -L SCANS /dev/sdb1');
  });

  it.each([
    ['another serial', { serial: 'FH24A07734' }],
    ['no serial', { serial: '' }],
    ['a system that runs from it', { serial: 'FH24A07733', mounts: '/boot/efi\n/' }],
    ['its swap space', { serial: 'FH24A07733', mounts: '[SWAP]' }]
  ])('%s: nothing is done', (_name, says) => {
    for (const command of eraseCommands(order({}), quote)) {
      const { did, said } = run(shell, command, says);
      expect(did).toBe('');
      expect(said).toContain('nothing was done');
    }
  });

  it('by its bytes, where it has no serial', () => {
    const [first = ''] = eraseCommands(order({ proof: { bytes: 2000398934016 } }), quote);
    expect(run(shell, first, { bytes: 2000398934016 }).did).toContain('wipefs');
    expect(run(shell, first, { bytes: 2000398934017 }).did).toBe('');
  });

  it('a serial full of marks of the shell is only compared', () => {
    const serial = 'A1\'; touch /tmp/never-made; $(id) `id` "';
    for (const command of eraseCommands(order({ proof: { serial } }), quote)) {
      expect(run(shell, command, { serial: 'FH24A07733' }).did).toBe('');
      // blanks are left out on both sides
      expect(run(shell, command, { serial }).did).not.toBe('');
    }
  });

  it('with the placeholder nothing is done, whatever answers', () => {
    for (const system of ['linux', 'macos'] as const)
      for (const command of eraseCommands(
        order({ system, device: '/dev/DEVICE', proof: null, filesystem: 'exfat' }),
        quote
      ))
        expect(run(shell, command, { serial: '', report: '' }).did).toBe('');
  });

  const REPORT = `USB:

    USB 3.1 Bus:

        Desk hub:

          Serial Number: HUB-1

            Trivet 40:

              Product ID: 0x0500
              Serial Number: FH24A07733
              Media:
                Chert T4 2TB:
                  Capacity: 2 TB (2,000,398,934,016 bytes)
                  BSD Name: disk4
                  Volumes:
                    OLD:
                      BSD Name: disk4s2

            Grate 10:

              Media:
                Marl Q4 4TB:
                  BSD Name: disk5

            Hob Dual:

              Serial Number: HD-9
              Media:
                Silt:
                  BSD Name: disk40
`;
  it('on macOS the report about the buses is asked: the serial right above the device, and no other', () => {
    const command = (device: string, serial: string) =>
      eraseCommands(order({ system: 'macos', device, proof: { serial }, filesystem: 'apfs' }), quote)[1] ?? '';
    expect(run(shell, command('/dev/disk4', 'FH24A07733'), { report: REPORT }).did).toBe(
      'diskutil eraseDisk APFS SCANS GPT disk4'
    );
    expect(run(shell, command('/dev/disk5', 'FH24A07733'), { report: REPORT }).did).toBe('');
    expect(run(shell, command('/dev/disk5', 'HUB-1'), { report: REPORT }).did).toBe('');
    expect(run(shell, command('/dev/disk40', 'HD-9'), { report: REPORT }).did).toContain('disk40');
    expect(
      run(shell, command('/dev/disk4', 'FH24A07733'), { report: REPORT, info: '   APFS Physical Store:       disk4s2' })
        .did
    ).toBe('');
  });

  it('on macOS by bytes, as the device says them', () => {
    const info = '   Disk Size:                 2.0 TB (2000398934016 Bytes) (exactly 3907029168 512-Byte-Units)';
    const command = (bytes: number) =>
      eraseCommands(
        order({ system: 'macos', device: '/dev/disk4', proof: { bytes }, filesystem: 'exfat' }),
        quote
      )[1] ?? '';
    expect(run(shell, command(2000398934016), { info }).did).toBe('diskutil eraseDisk ExFAT SCANS GPT disk4');
    expect(run(shell, command(2000398934000), { info }).did).toBe('');
    // the same stand-in answers for the root: an older macOS that runs from this disk
    expect(run(shell, command(2000398934016), { info: `${info}\n   Part of Whole:             disk4` }).did).toBe('');
  });
});

describe('Windows, whose shell is not here', () => {
  const commands = eraseCommands(
    order({ system: 'windows', device: 'Disk 2', filesystem: 'ntfs' }),
    (text) => `'${text}'`
  );
  it('every command asks for the serial, and whether a system runs from it', () => {
    for (const command of commands) {
      expect(command).toMatch(
        /^\$d = Get-Disk -Number 2 -ErrorAction Stop; if \(\(\$d\.SerialNumber .*-eq 'FH24A07733' -and -not \$d\.IsBoot -and -not \$d\.IsSystem\) \{/
      );
      expect(command).toContain("} else { Write-Error 'This is not the device that was meant");
    }
    expect(commands[2]).toContain("Format-Volume -FileSystem NTFS -NewFileSystemLabel 'SCANS'");
  });
  it('a serial with marks is never put into a command there', () => {
    for (const serial of ["a'b", 'a’b', 'a$b', 'a`b', 'a"b', 'a;b', 'a\nb'])
      expect(canAsk('windows', { serial })).toBe(false);
    expect(canAsk('windows', { serial: '0000_0000_0100_0000.' })).toBe(true);
  });
});

describe('what is settled beside name and filesystem', () => {
  const plain = (text: string) => `'${text}'`;
  const last = (change: Partial<EraseOrder>) => eraseCommands(order(change), plain).at(-1) ?? '';
  it.each<[string, Partial<EraseOrder>, string]>([
    // 32 x 1024 = 32 768
    ['a unit on exFAT', { filesystem: 'exfat', unitBytes: 32_768 }, "mkfs.exfat -c 32K -L 'SCANS'"],
    ['on NTFS in full', { filesystem: 'ntfs', unitBytes: 65_536, full: true }, "mkfs.ntfs -c 65536 -L 'SCANS'"],
    // 32 768 / 512 = 64 sectors
    ['on FAT32 in sectors', { filesystem: 'fat32', unitBytes: 32_768 }, "mkfs.vfat -F 32 -s 64 -n 'SCANS'"],
    [
      'on Windows',
      { system: 'windows', device: 'Disk 2', filesystem: 'exfat', unitBytes: 131_072, full: true },
      "-NewFileSystemLabel 'SCANS' -AllocationUnitSize 131072 -Full"
    ],
    [
      'case-sensitive APFS',
      { system: 'macos', device: '/dev/disk4', filesystem: 'apfs', variant: 'case-sensitive' },
      'eraseDisk APFSX '
    ],
    [
      'case-sensitive Mac OS Extended',
      { system: 'macos', device: '/dev/disk4', filesystem: 'hfs+', variant: 'case-sensitive' },
      'eraseDisk JHFSX '
    ],
    [
      'FAT32 on macOS takes capitals',
      { system: 'macos', device: '/dev/disk4', filesystem: 'fat32', name: 'Scans' },
      "eraseDisk FAT32 'SCANS'"
    ]
  ])('%s', (_name, change, part) => expect(last(change)).toContain(part));
});

describe('partitions', () => {
  it.each([
    ['/dev/sdb', '/dev/sdb1'],
    ['/dev/nvme1n1', '/dev/nvme1n1p1'],
    ['/dev/mmcblk0', '/dev/mmcblk0p1']
  ])('%s has %s', (device, partition) =>
    expect(eraseCommands(order({ device }), (text) => `'${text}'`)[2]).toContain(` ${partition};`)
  );
});
