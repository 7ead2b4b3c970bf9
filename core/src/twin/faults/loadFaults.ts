import { between, seat, type Fault } from './fault';

/** What can be wrong with a load-sensing valve; `of` is the towed unit's name or "front", with a space, or nothing. */
export function loadFaults(of: string): Fault[] {
  const way = `${of}load-sensing valve`;
  return [
    {
      id: `${way} low`,
      part: way,
      title: 'out of adjustment: it gives too little',
      hard: 2,
      apply: (on, severity) => {
        const by = between(6, 18, severity);
        on.shift(`${way}: inlet`, -by);
        on.shift(`${way}: exhaust`, by);
      },
    },
    seat(`${way}: exhaust`, way, 'its exhaust does not seal', 2),
  ];
}
