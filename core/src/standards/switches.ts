import type { RuleSet, Switches } from '@keen-bleed/contract';

/** One point on which practitioners disagree. */
export interface SwitchInfo<K extends keyof Switches = keyof Switches> {
  key: K;
  title: string;
  options: readonly { value: Switches[K]; title: string }[];
  /** Why the default is what it is. */
  why: string;
}

const info = <K extends keyof Switches>(given: SwitchInfo<K>): SwitchInfo => given;

/** What a rule set may switch, in the order it is shown. */
export const switchInfos: readonly SwitchInfo[] = [
  info({
    key: 'headedBy',
    title: 'Verdicts go by',
    options: [
      { value: 'how-sure', title: 'how sure' },
      { value: 'as-read', title: 'as read' },
    ],
    why: 'How sure: a pass then stands for the vehicle and not for the needle. An examiner goes by the needle as read.',
  }),
  info({
    key: 'order',
    title: 'Order of the fall',
    options: [
      { value: 'leak-first', title: 'leak tests, then warning' },
      { value: 'warning-first', title: 'warning, then leak tests' },
    ],
    why: 'Leak tests first: they want full tanks, and the fanning that follows serves warning and pop-out with the same air.',
  }),
  info({
    key: 'leakTests',
    title: 'Leak tests',
    options: [
      { value: 'both', title: 'released and applied' },
      { value: 'applied-only', title: 'applied only' },
    ],
    why: 'Both: a leak on the spring side shows only with the parking brakes released and the pedal up.',
  }),
  info({
    key: 'gauges',
    title: 'Gauges read in a hold',
    options: [
      { value: 'one', title: 'one' },
      { value: 'both', title: 'both' },
    ],
    why: 'One: the same eye cannot time two needles. Read both where a circuit is in doubt.',
  }),
  info({
    key: 'popOutTo',
    title: 'Pop-out window',
    options: [
      { value: '45', title: '20 to 45 psi' },
      { value: '40', title: '20 to 40 psi' },
    ],
    why: '20 to 45: it is what the rule for trailer protection says. Some examiners stop at 40.',
  }),
  info({
    key: 'heldBy',
    title: 'Secured by',
    options: [
      { value: 'chocks', title: 'chocks' },
      { value: 'low-gear', title: 'low gear' },
    ],
    why: 'Chocks: they hold with the engine off and nobody aboard. A gear does not hold a trailer that runs back.',
  }),
];

/** The switches as they ship. */
export const usualSwitches: Switches = {
  popOutTo: '45',
  heldBy: 'chocks',
  leakTests: 'both',
  gauges: 'one',
  order: 'leak-first',
  headedBy: 'how-sure',
};

/** The upper end of the pop-out window that a rule set's switch asks for, psi. */
export function popOutCeilingPsi(ruleSet: Pick<RuleSet, 'switches'>): number {
  return Number(ruleSet.switches.popOutTo);
}

/** Which of the two views heads a rule set's verdicts. */
export const headedBy = ({ switches }: Pick<RuleSet, 'switches'>): 'as-read' | 'how-sure' =>
  switches.headedBy ?? 'how-sure';
