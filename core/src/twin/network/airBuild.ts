import type { ChamberGroup, Unit } from '@keen-bleed/contract';
import type { PlumbedPart, Plumbing } from '../../rig/plumbing/plumbing';
import { chamberOf } from '../../rig/plumbing/ports';
import type { Sides } from './chambers';
import type { NetworkBuilder, TankWall } from './network';
import type { PlaceKind } from './placeKinds';

/** How a unit's air is made. */
export interface UnitAirOptions {
  load: number;
  sides: Sides;
}

/** A place of the air as the part it belongs to would make it. */
export interface OwnPlace {
  role: string;
  litres: number;
  part: string;
  kind?: PlaceKind;
  wall?: TankWall;
  warmerByK?: number;
}

/** Lines that are long or narrow enough for their bore to count; the others are one place from end to end. */
const BORED: ReadonlySet<string> = new Set(['discharge-line', 'rear-control-line', 'spring-line']);

const hasBore = ({ circuits, ports }: Unit, line: string) =>
  // A single circuit's dash hangs on a line from its tank.
  BORED.has(line) || (line === 'dash-feed' && circuits === 'single' && ports !== 'numbers');

/**
 * One unit's air while it is put together: what lines join is one place, which belongs to the first part that has one
 * of its own there; what no line reaches is a place of its own.
 */
export class AirBuild {
  private readonly nets = new Map<string, string>();
  private readonly nodes = new Map<string, number>();

  constructor(
    readonly net: NetworkBuilder,
    readonly unit: Unit,
    readonly plumbing: Plumbing,
    readonly options: UnitAirOptions,
  ) {
    for (const { id, role } of plumbing.parts) {
      if (role === 'line' && !hasBore(unit, id)) this.join(`${id} in`, `${id} out`);
    }
    const roles = new Map(plumbing.parts.map(({ id, role }) => [id, role]));
    for (const { from, to, boreMm } of plumbing.lines) {
      const [one, other] = [roles.get(from.part), roles.get(to.part)];
      // A line to what is not there joins nothing; one of a found bore is a way of its own.
      if (!one || !other || boreMm !== null) continue;
      this.join(
        `${from.part} ${chamberOf(one, from.port)}`,
        `${to.part} ${chamberOf(other, to.port)}`,
      );
    }
  }

  private rootOf(key: string): string {
    let root = key;
    for (let up = this.nets.get(root); up !== undefined; up = this.nets.get(root)) root = up;
    return root;
  }

  private join(one: string, other: string): void {
    const [a, b] = [this.rootOf(one), this.rootOf(other)];
    if (a !== b) this.nets.set(b, a);
  }

  /**
   * Makes the place a part has at a port. Where a line wrongly joins it to another part's, both are one place: it takes
   * the room of both and keeps the name of the first, and is found by either.
   */
  own(part: string, port: string, { role, litres, ...options }: OwnPlace): number {
    const root = this.rootOf(`${part} ${port}`);
    const there = this.nodes.get(root);
    if (there !== undefined) {
      this.net.enlarge(there, litres, role);
      return there;
    }
    const node = this.net.node(role, litres, options);
    this.nodes.set(root, node);
    return node;
  }

  /** The place at a port of a part; a loose end where nothing joins it. */
  at(part: string, port: string): number {
    const root = this.rootOf(`${part} ${port}`);
    const known = this.nodes.get(root);
    if (known !== undefined) return known;
    const node = this.net.node(`loose end: ${part} ${port}`, 0.05, { kind: 'loose end', part });
    this.nodes.set(root, node);
    return node;
  }

  /** Tells the network which place each end of each line is at, once all are made. */
  tellPorts(): void {
    const told = new Set<string>();
    const roles = new Map(this.plumbing.parts.map(({ id, role }) => [id, role]));
    for (const { from, to } of this.plumbing.lines) {
      // A line to what this rig does not have joins nothing, and has no ends here.
      if (!roles.has(from.part) || !roles.has(to.part)) continue;
      for (const end of [from, to]) {
        const role = roles.get(end.part);
        if (!role) continue;
        const port = chamberOf(role, end.port);
        if (told.has(`${end.part} ${port}`)) continue;
        told.add(`${end.part} ${port}`);
        this.net.port(end.part, port, this.at(end.part, port));
      }
    }
  }

  /** Whether lines join two ports. */
  areJoined(part: string, port: string, other: string, otherPort: string): boolean {
    return this.rootOf(`${part} ${port}`) === this.rootOf(`${other} ${otherPort}`);
  }

  has(part: string): boolean {
    return this.plumbing.parts.some(({ id }) => id === part);
  }

  part(id: string): PlumbedPart | undefined {
    return this.plumbing.parts.find((part) => part.id === id);
  }

  group(at: number): ChamberGroup {
    return this.unit.chambers[at]!;
  }
}
