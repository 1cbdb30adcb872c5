/* eslint-disable @typescript-eslint/no-non-null-assertion -- every rule has its standard option */
/**
 * A question on which practice differs: two options or more, each with what speaks for it, and the default. A crate chooses an option,
 * and every place where the rule decided something names it.
 */
type RuleOption = { label: string; because: string };
type HouseRule = {
  /** What it is called where it is named. */
  name: string;
  question: string;
  choices: Record<string, RuleOption>;
  standard: string;
  /** Where the choice shows. */
  decides: string;
};

export const HOUSE_RULES = {
  'windows-drive': {
    name: 'Windows drive',
    question: 'A drive that only Windows uses',
    choices: {
      ntfs: {
        label: 'NTFS',
        because: 'It is journaled: a pulled cable costs the last file, seldom the volume. It keeps permissions.'
      },
      exfat: {
        label: 'exFAT',
        because: 'No permissions that lock one out on the next computer, and it is ready for another system later.'
      }
    },
    standard: 'ntfs',
    decides: 'the filesystem'
  },
  'mac-disk': {
    name: 'Mac hard disk',
    question: 'A hard disk that only Macs use',
    choices: {
      'hfs+': {
        label: 'Mac OS Extended',
        because: 'Its catalogue lies together, so that a turning disk seeks less and stays quick with age.'
      },
      apfs: {
        label: 'APFS',
        because:
          'Snapshots, encryption and shared space outweigh some seeking, most of all for data that is seldom changed.'
      }
    },
    standard: 'hfs+',
    decides: 'the filesystem'
  },
  'mac-backup': {
    name: 'Mac backup',
    question: 'A backup target for macOS 11 or later',
    choices: {
      apfs: { label: 'APFS', because: 'The system’s own backup works with snapshots there, and is faster for it.' },
      'hfs+': {
        label: 'Mac OS Extended',
        because: 'Older systems read it, and bootable installers are made on it.'
      }
    },
    standard: 'apfs',
    decides: 'the filesystem'
  },
  scheme: {
    name: 'Partition scheme',
    question: 'How a drive is partitioned',
    choices: {
      gpt: { label: 'GPT', because: 'No limit at 2.2 TB, and a second copy of the table at the end of the drive.' },
      mbr: { label: 'MBR', because: 'Old firmware and simple devices know nothing else.' }
    },
    standard: 'gpt',
    decides: 'the partition scheme'
  },
  encrypt: {
    name: 'Carried drives',
    question: 'A drive that is carried about, where the job does not say',
    choices: {
      yes: {
        label: 'encrypt it',
        because: 'A drive in a bag gets lost sooner than it fails; on current computers encryption costs little.'
      },
      no: {
        label: 'leave it open',
        because: 'It opens everywhere without software or password, and a forgotten password is a loss too.'
      }
    },
    standard: 'yes',
    decides: 'filesystem advice for carried drives'
  },
  'write-cache': {
    name: 'Write cache',
    question: 'Write cache of external drives on Windows',
    choices: {
      performance: {
        label: 'better performance, always eject',
        because: 'Through a tunnel it often writes four times as fast. Pulled without ejecting, it loses data.'
      },
      'quick-removal': {
        label: 'quick removal',
        because:
          'Safe to pull at any time once the light is still, which suits a drive that is carried; what Windows does by itself.'
      }
    },
    // Until somebody switches it a drive on Windows writes like this, so a plan forecasts it.
    standard: 'quick-removal',
    decides: 'the write through a tunnel and the time of many files, on Windows'
  },
  'drive-class': {
    name: 'Drive class',
    question: 'How fast a drive to buy',
    choices: {
      'just-above-link': {
        label: 'just above the link',
        because: 'What the link cannot carry is paid for and never seen; a slower drive is cooler and cheaper.'
      },
      headroom: {
        label: 'headroom for a later computer',
        because: 'A drive outlives its computer and its enclosure, and is bought once.'
      }
    },
    standard: 'just-above-link',
    decides: 'what is said of a drive that is faster than its link'
  },
  link: {
    name: 'Link',
    question: 'Which link to aim for',
    choices: {
      'by-job': {
        label: 'what the job needs',
        because:
          '10 Gb/s runs on nearly every port and cable and stays cool; more is worth it where the work waits for it.'
      },
      'forty-and-more': {
        label: '40 Gb/s and more',
        because: 'The price between them shrinks, the time of every copy does too, and projects only grow.'
      }
    },
    standard: 'by-job',
    decides: 'how a slow port or cable is spoken of where the job has all it needs'
  },
  'one-host': {
    name: 'Slow on one computer',
    question: 'Slow writes that were seen on one computer only',
    choices: {
      'link-first': {
        label: 'suspect computer and chain first',
        because:
          'Ports, cables and policies are cheap to swap; a drive is blamed only after a second computer was tried.'
      },
      'drive-first': {
        label: 'suspect the drive first',
        because: 'The return window of a new drive is short, and its own test settles the question at once.'
      }
    },
    standard: 'link-first',
    decides: 'the next step after a result below the forecast'
  },
  'judge-by': {
    name: 'Judge by',
    question: 'What to judge a build by',
    choices: {
      both: {
        label: 'the speed check and the own copy job',
        because: 'The one can be compared with others, the other is what the day is spent with.'
      },
      synthetic: {
        label: 'the speed check',
        because: 'Same blocks, same size, repeatable: differences are the build’s.'
      },
      copy: {
        label: 'the own copy job',
        because: 'Own files, own filesystem, both ends: no test knows them, and nothing else is waited for.'
      }
    },
    standard: 'both',
    decides: 'what is asked for on Measure'
  },
  'stop-watch': {
    name: 'Stop the watch',
    question: 'When to stop the watch',
    choices: {
      'last-byte': {
        label: 'when the drive has the last byte',
        because: 'The volume shows all of it. Sound and dialog come earlier or later than the data.'
      },
      signal: {
        label: 'at the system’s signal',
        because: 'It is easy to catch, and what is compared was all taken the same way.'
      }
    },
    standard: 'last-byte',
    decides: 'what the stopwatch asks for'
  },
  'pick-for': {
    name: 'Pick for',
    question: 'What a drive is picked for',
    choices: {
      'by-work': {
        label: 'by the work',
        because: 'A large cache where single transfers are large, random speed where a project lives on the drive.'
      },
      sustained: {
        label: 'what it writes after the cache',
        because: 'Every transfer ends at the slowest rate that it meets.'
      },
      price: {
        label: 'the price of a terabyte',
        because: 'Most drives wait for the link or the person most of their life.'
      }
    },
    standard: 'by-work',
    decides: 'the weights that a ranking begins with'
  },
  buy: {
    name: 'Buy',
    question: 'How to come by an external drive',
    choices: {
      bare: {
        label: 'a bare drive and an enclosure',
        because: 'Each part can be chosen, measured, mended and used again.'
      },
      'ready-made': {
        label: 'a ready-made one',
        because: 'One warranty, nothing to assemble, and often small and cheap in small capacities.'
      },
      'take-out': {
        label: 'take a disk out of an external one',
        because: 'Large disks are at times cheaper in a case than bare; warranty and connector are a risk.'
      }
    },
    standard: 'bare',
    decides: 'what a ranking is held against'
  },
  reuse: {
    name: 'Parts at hand',
    question: 'A part that is in the crate already',
    choices: {
      free: { label: 'costs nothing', because: 'It is paid for; what counts is what still has to be spent.' },
      resale: {
        label: 'costs what it would sell for',
        because: 'Used here, it cannot be sold or used elsewhere; its item says what it would bring.'
      }
    },
    standard: 'free',
    decides: 'what is still to be paid in a ranking'
  },
  cooling: {
    name: 'Cooling',
    question: 'How a case is cooled',
    choices: {
      passive: { label: 'passive', because: 'Quiet on a desk, nothing that wears out or draws dust in.' },
      fan: { label: 'with a fan', because: 'Writes of more than some minutes stay at full rate.' }
    },
    standard: 'passive',
    decides: 'a remark on the enclosure'
  },
  retention: {
    name: 'Retention',
    question: 'How a module is held',
    choices: {
      screw: { label: 'a screw', because: 'It presses evenly and does not creep; the standoff sets the height.' },
      'tool-less': { label: 'without tools', because: 'Nothing to lose, and drives change in seconds.' }
    },
    standard: 'screw',
    decides: 'a remark on the enclosure'
  },
  label: {
    name: 'Paper label',
    question: 'A paper label on the drive',
    choices: {
      leave: {
        label: 'leave it on',
        because: 'It often carries the warranty and the serial number; the price is some 4 to 14 K on a controller.'
      },
      remove: {
        label: 'take it off',
        because: 'Paper insulates; photograph it first. A metallised label spreads heat and stays on by either option.'
      }
    },
    standard: 'leave',
    decides: 'the temperature of a drive with a paper label'
  },
  pieces: {
    name: 'Pad pieces',
    question: 'Pads on a board',
    choices: {
      'per-chip': {
        label: 'one piece per chip',
        because: 'Every chip gets the thickness of its own gap, and a hot controller does not warm the NAND.'
      },
      sheet: { label: 'one sheet', because: 'Quickly cut, nothing slips, and the board is pressed evenly.' }
    },
    standard: 'per-chip',
    decides: 'the pads of the stack'
  },
  'gap-not-closed': {
    name: 'Gap not closed',
    question: 'A gap that no pad at hand closes',
    choices: {
      'buy-right': {
        label: 'buy the one right thickness',
        because: 'One pad has two contact faces, a stack has four.'
      },
      stack: { label: 'stack two pads', because: 'They are at hand now, and the difference is a few degrees.' }
    },
    standard: 'buy-right',
    decides: 'the pads of the stack'
  },
  'hot-case': {
    name: 'Hot case',
    question: 'A case that gets hot to the touch',
    choices: {
      'heat-gets-out': {
        label: 'no fault: it shows that heat gets out',
        because: 'The chips decide: a hot case over a cool chip does its work. The trend is what to watch.'
      },
      fault: {
        label: 'a fault by itself',
        because: 'It is held, carried and laid on papers; what cannot be touched is wrong.'
      }
    },
    standard: 'heat-gets-out',
    decides: 'from which temperature a case is something to check'
  },
  software: {
    name: 'Software',
    question: 'Software that comes with a drive or a case',
    choices: {
      system: {
        label: 'the system’s own tools',
        because: 'They are updated with the system, and the drive opens without anything installed.'
      },
      supplied: { label: 'what is supplied', because: 'Firmware and health readings are at times only there.' }
    },
    standard: 'system',
    decides: 'what the step of formatting says'
  }
} as const satisfies Record<string, HouseRule>;

export type HouseRuleId = keyof typeof HOUSE_RULES;
export const HOUSE_RULE_IDS = Object.keys(HOUSE_RULES) as HouseRuleId[];
export type HouseRules = { readonly [id in HouseRuleId]?: string };

/**
 * Gives the option that holds for a crate: its own choice where that exists, else the default.
 * @example chosenOption('windows-drive', undefined) // 'ntfs'
 */
export function chosenOption(id: HouseRuleId, rules: HouseRules | undefined): string {
  const chosen = rules?.[id];
  const rule: HouseRule = HOUSE_RULES[id];
  return chosen !== undefined && Object.hasOwn(rule.choices, chosen) ? chosen : rule.standard;
}

/** A house rule that decided something: by which option, whether the crate chose it or the default stands, and what came of it. */
export type AppliedRule = { school: HouseRuleId; choice: string; own: boolean; effect: string };

/**
 * Notes a house rule that decided something.
 * @param effect what the rule decided, as a sentence without its last stop
 */
export function appliedRule(school: HouseRuleId, rules: HouseRules | undefined, effect: string): AppliedRule {
  return { school, choice: chosenOption(school, rules), own: rules?.[school] !== undefined, effect };
}

/**
 * Gives an option of a house rule in words; the default where it has no such option.
 * @example optionOf('windows-drive', 'exfat').label // 'exFAT'
 */
export function optionOf(id: HouseRuleId, choice: string): RuleOption {
  const rule: HouseRule = HOUSE_RULES[id];
  return rule.choices[choice] ?? rule.choices[rule.standard]!;
}

/**
 * Gives a rule as it is named beside what it decided: `house rule “Drive class”: just above the link`.
 * @example ruleName('windows-drive', undefined) // 'house rule “Windows drive”: NTFS'
 */
export const ruleName = (id: HouseRuleId, rules: HouseRules | undefined): string =>
  `house rule “${HOUSE_RULES[id].name}”: ${optionOf(id, chosenOption(id, rules)).label}`;
