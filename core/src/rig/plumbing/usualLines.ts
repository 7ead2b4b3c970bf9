import type { Unit } from '@keen-bleed/contract';
import { hasCompressor } from '../hasCompressor';
import { axlesOf, wheelsOf, type Described, type Part } from '../partsOf';
import type { LineCircuit, PlumbedLine, PortAt } from './plumbing';
import { portsOf } from './ports';

/** Lays lines between the parts there are, each to an opening of its own. */
class Pipework {
  readonly lines: PlumbedLine[] = [];
  private readonly taken = new Set<string>();
  private readonly parts: ReadonlyMap<string, Part>;

  constructor(parts: readonly Part[]) {
    this.parts = new Map(parts.map((part) => [part.id, part]));
  }

  has = (part: string) => this.parts.has(part);

  private hasPort(part: string, port: string): boolean {
    const role = this.parts.get(part)?.role;
    return role !== undefined && portsOf(role).some(({ id }) => id === port);
  }

  /** The next free opening of a port. */
  private opening(part: string, port: string): PortAt {
    const role = this.parts.get(part)!.role;
    const free = portsOf(role).find(
      ({ id }) => (id === port || id.startsWith(`${port}.`)) && !this.taken.has(`${part} ${id}`),
    );
    const opening = free?.id ?? port;
    this.taken.add(`${part} ${opening}`);
    return { part, port: opening };
  }

  /** A line between two ports, where both parts are there. */
  join(
    circuit: LineCircuit,
    from: readonly [part: string, port: string],
    to: readonly [part: string, port: string],
    title: string,
    moves = false,
  ): void {
    if (!this.hasPort(...from) || !this.hasPort(...to)) return;
    const [start, end] = [this.opening(...from), this.opening(...to)];
    this.lines.push({
      id: `${to[0]}.${to[1]}`,
      title,
      from: start,
      to: end,
      circuit,
      moves,
      boreMm: null,
    });
  }
}

/**
 * The lines of the usual layout between the parts a unit has. A line is named by the port it ends at: what leaves one
 * port for several places does so by several openings.
 */
export function usualLines(
  unit: Described,
  parts: readonly Part[],
  variants: ReadonlyMap<string, string>,
): readonly PlumbedLine[] {
  const pipes = new Pipework(parts);
  if (hasCompressor(unit.kind)) powered(pipes, unit, variants);
  else towed(pipes, unit);
  return pipes.lines;
}

function powered(pipes: Pipework, unit: Described, variants: ReadonlyMap<string, string>): void {
  supplySide(pipes, variants.get('dryer') ?? null);
  circuits(pipes, unit);
  footAndAxles(pipes, unit);
  park(pipes, variants.get('anti-compounding') === 'foot-delivery');
  trailerControls(pipes);
}

function supplySide(pipes: Pipework, purge: string | null): void {
  pipes.join('supply', ['compressor', 'delivery'], ['discharge-line', 'in'], 'Discharge', true);
  if (pipes.has('pre-cleaner')) {
    pipes.join(
      'supply',
      ['discharge-line', 'out'],
      ['pre-cleaner', 'in'],
      'Discharge to pre-cleaner',
    );
    pipes.join('supply', ['pre-cleaner', 'out'], ['dryer', 'in'], 'Pre-cleaner to dryer');
  } else pipes.join('supply', ['discharge-line', 'out'], ['dryer', 'in'], 'Discharge to dryer');
  pipes.join('supply', ['dryer', 'out'], ['supply-tank', 'fill'], 'Dryer to supply tank');
  pipes.join('supply', ['supply-tank', 'out'], ['governor', 'sense'], 'Governor feed');
  pipes.join('supply', ['governor', 'signal'], ['compressor', 'unloader'], 'Unloader line');
  pipes.join('supply', ['governor', 'signal'], ['dryer', 'control'], 'Purge control');
  pipes.join('supply', ['supply-tank', 'out'], ['safety-valve', 'in'], 'Safety valve');
  pipes.join('supply', ['supply-tank', 'drain'], ['supply-drain', 'in'], 'Supply drain');
  if (purge === 'service-tank') {
    pipes.join('supply', ['primary-tank', 'out'], ['dryer', 'regeneration'], 'Regeneration');
  }
}

function circuits(pipes: Pipework, { circuits: count, ports }: Described): void {
  for (const circuit of ['primary', 'secondary'] as const) {
    pipes.join(
      'supply',
      ['supply-tank', 'out'],
      [`${circuit}-check`, 'in'],
      `Supply tank to ${circuit} check`,
    );
    pipes.join(
      'supply',
      [`${circuit}-check`, 'out'],
      [`${circuit}-tank`, 'fill'],
      `${circuit} tank fill`,
    );
    pipes.join(
      'supply',
      [`${circuit}-tank`, 'drain'],
      [`${circuit}-drain`, 'in'],
      `${circuit} drain`,
    );
    pipes.join(
      'supply',
      [`${circuit}-tank`, 'out'],
      [`${circuit}-low-air-switch`, 'in'],
      `${circuit} low-air switch`,
    );
    pipes.join('supply', [`${circuit}-tank`, 'out'], ['gauge', circuit], `${circuit} gauge`);
  }
  pipes.join('supply', ['supply-tank', 'out'], ['supply-low-air-switch', 'in'], 'Low-air switch');
  pipes.join(
    'supply',
    ['primary-tank', 'out'],
    ['dash-double-check', 'first'],
    'Primary to the dash',
  );
  pipes.join(
    'supply',
    ['secondary-tank', 'out'],
    ['dash-double-check', 'second'],
    'Secondary to the dash',
  );
  pipes.join(
    'supply',
    ['dash-double-check', 'out'],
    ['dash-feed', 'in'],
    'Feed of the dash controls',
  );
  if (ports === 'numbers') {
    pipes.join(
      'supply',
      ['supply-tank', 'out'],
      ['third-circuit', 'in'],
      'Supply tank to third circuit',
    );
    pipes.join('supply', ['third-circuit', 'out'], ['dash-feed', 'in'], 'Third circuit');
  } else if (count === 'single') {
    pipes.join('supply', ['primary-tank', 'out'], ['dash-feed', 'in'], 'Feed of the dash controls');
  }
  const rear = count === 'dual' ? 'secondary-tank' : 'primary-tank';
  pipes.join('supply', [rear, 'out'], ['accessories', 'in'], 'Accessory take-off');
  for (const [id, title] of [
    ['suspension', 'Suspension'],
    ['horn', 'Horn'],
    ['wiper', 'Wiper'],
    ['seat', 'Seat'],
    ['door', 'Door'],
    ['tyre-inflation', 'Tyre inflation'],
  ] as const) {
    pipes.join('supply', ['accessories', 'out'], [id, 'in'], title);
  }
  pipes.join(
    'supply',
    ['supply-tank', 'out'],
    ['auxiliary-compressor', 'in'],
    'Auxiliary compressor',
  );
}

function footAndAxles(pipes: Pipework, { circuits: count, chambers }: Described): void {
  const second = count === 'dual' ? 'secondary-tank' : 'primary-tank';
  pipes.join(
    'supply',
    ['primary-tank', 'out'],
    ['foot-valve', 'supply-1'],
    'Primary to foot valve',
  );
  pipes.join('supply', [second, 'out'], ['foot-valve', 'supply-2'], 'Secondary to foot valve');
  if (pipes.has('front-load-sensing')) {
    pipes.join(
      'service',
      ['foot-valve', 'delivery-2'],
      ['front-load-sensing', 'control'],
      'Front control',
    );
    pipes.join(
      'supply',
      [second, 'out'],
      ['front-load-sensing', 'supply'],
      'Front load-sensing supply',
    );
    pipes.join(
      'service',
      ['front-load-sensing', 'delivery'],
      ['front-quick-release', 'in'],
      'Front delivery',
    );
  } else
    pipes.join(
      'service',
      ['foot-valve', 'delivery-2'],
      ['front-quick-release', 'in'],
      'Front service',
    );
  if (pipes.has('load-sensing')) {
    pipes.join(
      'service',
      ['foot-valve', 'delivery-1'],
      ['load-sensing', 'control'],
      'Rear control',
    );
    pipes.join(
      'supply',
      ['primary-tank', 'out'],
      ['load-sensing', 'supply'],
      'Load-sensing supply',
    );
    pipes.join(
      'service',
      ['load-sensing', 'delivery'],
      ['rear-relay', 'control'],
      'Rear relay control',
    );
  } else {
    pipes.join(
      'service',
      ['foot-valve', 'delivery-1'],
      ['rear-control-line', 'in'],
      'Rear control',
    );
    pipes.join(
      'service',
      ['rear-control-line', 'out'],
      ['rear-relay', 'control'],
      'Rear relay control',
    );
  }
  pipes.join('supply', ['primary-tank', 'out'], ['rear-relay', 'supply'], 'Rear relay supply');
  const { front, rear } = axlesOf(chambers);
  hoses(pipes, 'front-chambers', front, ['front-quick-release', 'out'], null);
  hoses(pipes, 'rear-chambers', rear, ['rear-relay', 'delivery'], ['park-relay', 'delivery']);
  pipes.join('service', ['front-quick-release', 'out'], ['antilock', 'front'], 'Front modulators');
  pipes.join('service', ['rear-relay', 'delivery'], ['antilock', 'rear'], 'Rear modulators');
  for (const lamp of ['stop-lamp-switch', 'primary-stop-lamp-switch']) {
    pipes.join('service', ['foot-valve', 'delivery-1'], [lamp, 'first'], 'Stop-lamp switch');
  }
  pipes.join(
    'service',
    ['foot-valve', 'delivery-2'],
    ['stop-lamp-switch', 'second'],
    'Stop-lamp switch',
  );
  pipes.join(
    'service',
    ['foot-valve', 'delivery-2'],
    ['secondary-stop-lamp-switch', 'first'],
    'Stop-lamp switch',
  );
}

/** Each wheel's hoses: service from a relay or quick-release, springs from where they are held off. */
function hoses(
  pipes: Pipework,
  of: string,
  groups: Unit['chambers'],
  service: readonly [part: string, port: string],
  springs: readonly [part: string, port: string] | null,
): void {
  groups.forEach((group, at) => {
    for (const { id, side } of wheelsOf(of, groups, at)) {
      pipes.join('service', service, [id, 'service'], `Service hose, ${side}`, true);
      if (group.springBrake && springs)
        pipes.join('park', springs, [id, 'spring'], `Spring hose, ${side}`, true);
    }
  });
}

function park(pipes: Pipework, fromFootValve: boolean): void {
  pipes.join('supply', ['dash-feed', 'out'], ['park-control', 'supply'], 'Park control supply');
  pipes.join('park', ['park-control', 'delivery'], ['park-line', 'in'], 'Park line');
  pipes.join('supply', ['dash-feed', 'out'], ['hand-brake-valve', 'supply'], 'Hand brake supply');
  pipes.join('park', ['hand-brake-valve', 'park'], ['park-line', 'in'], 'Park line');
  pipes.join('supply', ['dash-feed', 'out'], ['park-relay', 'supply'], 'Park relay supply');
  if (pipes.has('anti-compounding')) {
    pipes.join(
      'park',
      ['park-line', 'out'],
      ['anti-compounding', 'first'],
      'Park line to anti-compounding',
    );
    pipes.join(
      'service',
      fromFootValve ? ['foot-valve', 'delivery-1'] : ['rear-relay', 'delivery'],
      ['anti-compounding', 'second'],
      'Service to anti-compounding',
    );
    pipes.join(
      'park',
      ['anti-compounding', 'out'],
      ['park-relay', 'control'],
      'Park relay control',
    );
  } else pipes.join('park', ['park-line', 'out'], ['park-relay', 'control'], 'Park relay control');
  pipes.join(
    'service',
    ['foot-valve', 'delivery-2'],
    ['modulating-valve', 'control'],
    'Modulating valve control',
  );
  pipes.join(
    'supply',
    ['primary-tank', 'out'],
    ['modulating-valve', 'sense'],
    'Modulating valve, primary',
  );
  pipes.join(
    'park',
    ['park-relay', 'delivery'],
    ['modulating-valve', 'springs'],
    'Modulating valve, springs',
  );
}

function trailerControls(pipes: Pipework): void {
  pipes.join(
    'supply',
    ['dash-feed', 'out'],
    ['trailer-supply-control', 'supply'],
    'Trailer supply control',
  );
  pipes.join(
    'supply',
    ['trailer-supply-control', 'delivery'],
    ['trailer-supply-line', 'in'],
    'Trailer supply',
  );
  pipes.join(
    'service',
    ['foot-valve', 'delivery-2'],
    ['foot-double-check', 'first'],
    'Secondary to the trailer',
  );
  pipes.join(
    'service',
    ['foot-valve', 'delivery-1'],
    ['foot-double-check', 'second'],
    'Primary to the trailer',
  );
  pipes.join('supply', ['dash-feed', 'out'], ['hand-valve', 'supply'], 'Hand valve supply');
  pipes.join(
    'service',
    ['foot-double-check', 'out'],
    ['hand-double-check', 'first'],
    'Foot signal',
  );
  pipes.join('service', ['hand-valve', 'delivery'], ['hand-double-check', 'second'], 'Hand signal');
  pipes.join(
    'service',
    ['hand-double-check', 'out'],
    ['tractor-protection', 'signal'],
    'Trailer signal',
  );
  pipes.join(
    'supply',
    ['trailer-supply-line', 'out'],
    ['tractor-protection', 'sense'],
    'Tractor protection, supply',
  );
  pipes.join(
    'service',
    ['tractor-protection', 'service'],
    ['trailer-service-line', 'in'],
    'Trailer service',
  );
  pipes.join(
    'supply',
    ['dash-feed', 'out'],
    ['trailer-control-valve', 'supply'],
    'Trailer control supply',
  );
  pipes.join(
    'service',
    ['foot-valve', 'delivery-1'],
    ['trailer-control-valve', 'foot-1'],
    'Primary to the trailer',
  );
  pipes.join(
    'service',
    ['foot-valve', 'delivery-2'],
    ['trailer-control-valve', 'foot-2'],
    'Secondary to the trailer',
  );
  pipes.join(
    'park',
    ['hand-brake-valve', 'trailer'],
    ['trailer-control-valve', 'hand'],
    'Hand brake to the trailer',
  );
  pipes.join(
    'supply',
    ['trailer-control-valve', 'red'],
    ['trailer-supply-line', 'in'],
    'Trailer supply',
  );
  pipes.join(
    'service',
    ['trailer-control-valve', 'blue'],
    ['trailer-service-line', 'in'],
    'Trailer service',
  );
}

function towed(pipes: Pipework, { chambers }: Described): void {
  pipes.join('supply', ['supply-coupler', 'rear'], ['supply-line', 'in'], 'Supply line', true);
  pipes.join('service', ['service-coupler', 'rear'], ['service-line', 'in'], 'Service line', true);
  pipes.join('supply', ['supply-line', 'out'], ['tank-check', 'in'], 'Supply to tank');
  pipes.join('supply', ['tank-check', 'out'], ['tank', 'fill'], 'Tank fill');
  pipes.join('supply', ['tank', 'drain'], ['drain', 'in'], 'Tank drain');
  pipes.join('supply', ['supply-line', 'out'], ['relay', 'emergency'], 'Emergency line');
  if (pipes.has('load-sensing')) {
    pipes.join('service', ['service-line', 'out'], ['load-sensing', 'control'], 'Control');
    pipes.join('supply', ['tank', 'out'], ['load-sensing', 'supply'], 'Load-sensing supply');
    pipes.join('service', ['load-sensing', 'delivery'], ['relay', 'control'], 'Relay control');
  } else pipes.join('service', ['service-line', 'out'], ['relay', 'control'], 'Relay control');
  pipes.join('supply', ['tank', 'out'], ['relay', 'supply'], 'Relay supply');
  pipes.join('supply', ['supply-line', 'out'], ['spring-line', 'in'], 'Spring feed');
  hoses(pipes, 'chambers', chambers, ['relay', 'delivery'], ['spring-line', 'out']);
  pipes.join('service', ['relay', 'delivery'], ['antilock', 'rear'], 'Modulators');
  pipes.join('supply', ['tank', 'out'], ['suspension', 'in'], 'Suspension');
  pipes.join('supply', ['tank', 'out'], ['tyre-inflation', 'in'], 'Tyre inflation');
  pipes.join('supply', ['supply-line', 'out'], ['supply-cock', 'in'], 'Supply to the rear');
  pipes.join('service', ['service-line', 'out'], ['service-cock', 'in'], 'Service to the rear');
}
