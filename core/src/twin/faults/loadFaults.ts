import type { Twin } from '../twin';
import { type Fault } from './fault';
import { line } from '../graded';
import { fault, seat } from './makers';

/** What can be wrong with a load-sensing valve; `of` begins its ids, and `called` its name. */
export function loadFaults(twin: Twin, of: string, called: string): Fault[] {
  const way = `${of}load-sensing valve`;
  const part = `${called}load-sensing valve`;
  return [
    fault(
      `${way} low`,
      `${way}: inlet`,
      { part, title: 'out of adjustment: it gives too little', hard: 2 },
      [
        { does: 'shift', way: `${way}: inlet`, psi: line(-3, -20) },
        { does: 'shift', way: `${way}: exhaust`, psi: line(3, 20) },
      ],
    ),
    seat(twin, `${way}: exhaust`, { part, title: 'its exhaust does not seal', hard: 2 }),
  ];
}
