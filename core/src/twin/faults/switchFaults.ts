import type { Twin } from '../twin';
import { type Fault } from './fault';
import { line, type Range } from '../graded';
import { fault, OUT_OF_REACH_PSI } from './makers';

/** What can be wrong with the low-air and stop-lamp switches. */
export function switchFaults(twin: Twin): Fault[] {
  const { latches } = twin.system.network;
  const warnings = latches.filter(({ role }) => role === 'low-air switch').map(({ id }) => id);
  const lamps = latches.filter(({ role }) => role === 'stop-lamp switch').map(({ id }) => id);
  return [...warningFaults(warnings), ...lamps.flatMap(stopLampFaults)];
}

const moved = (latch: string, by: Range | number) =>
  ({ does: 'set', latch, lowBy: by, highBy: by }) as const;

function warningFaults(switches: readonly string[]): Fault[] {
  const [first] = switches;
  if (first === undefined) return [];
  const lamp = 'low-air warning';
  return [
    fault('warning dead', first, { part: lamp, title: 'never warns: its wire is off', hard: 1 }, [
      ...switches.map((id) => moved(id, -OUT_OF_REACH_PSI)),
    ]),
    fault(
      'warning always',
      first,
      { part: lamp, title: 'always warns: its wire touches the frame', hard: 1, prior: 0.5 },
      [moved(first, OUT_OF_REACH_PSI)],
    ),
    ...switches.flatMap((id) => [
      fault(`${id} low`, id, { part: `${id} switch`, title: 'warns too late', hard: 1 }, [
        { does: 'set', latch: id, lowBy: line(-4, -25), highBy: line(-4, -25) },
      ]),
      // With one of two dead the other still lights the lamp: it shows only with its own tank low.
      ...(switches.length > 1
        ? [
            fault(`${id} dead`, id, { part: `${id} switch`, title: 'does not close', hard: 2 }, [
              moved(id, -OUT_OF_REACH_PSI),
            ]),
          ]
        : []),
    ]),
  ];
}

function stopLampFaults(id: string): Fault[] {
  const part = `${id} switch`;
  return [
    fault(`${id} dead`, id, { part, title: 'does not close: its wire is off', hard: 1 }, [
      moved(id, OUT_OF_REACH_PSI),
    ]),
    fault(
      `${id} always`,
      id,
      { part, title: 'stuck: the stop lamps are always on', hard: 1, prior: 0.5 },
      [moved(id, -OUT_OF_REACH_PSI)],
    ),
    fault(`${id} late`, id, { part, title: 'closes late', hard: 2, prior: 0.5 }, [
      moved(id, line(2, 20)),
    ]),
  ];
}
