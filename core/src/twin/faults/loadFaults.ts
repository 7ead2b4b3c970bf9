import { between, seat, type Fault } from './fault';

/** What can be wrong with a load-sensing valve; `of` begins its ids, and `called` its name. */
export function loadFaults(of: string, called: string): Fault[] {
  const way = `${of}load-sensing valve`;
  const part = `${called}load-sensing valve`;
  return [
    {
      id: `${way} low`,
      at: `${way}: inlet`,
      part,
      title: 'out of adjustment: it gives too little',
      hard: 2,
      apply: (on, severity) => {
        const by = between(6, 18, severity);
        on.shift(`${way}: inlet`, -by);
        on.shift(`${way}: exhaust`, by);
      },
    },
    seat(`${way}: exhaust`, part, 'its exhaust does not seal', 2),
  ];
}
