import { towedPrefix } from '../twin/network/network';
import type { AnswerShape, RigStateId } from './check';
import { graded, WET } from './grades';
import { EYES, psiShape, ROLL, type Bare, type Made } from './made';
import { STATES } from './states';

const perMinute = (spread: number): AnswerShape => ({
  kind: 'number',
  unit: 'psi/min',
  resolution: 0.1,
  error: 0.15,
  spread,
});

/** What is read from the cab, and what isolating one part of the air tells. */
export function wholeChecks(made: Made): Bare[] {
  return [
    ...fallChecks(made),
    ...isolateChecks(made),
    ...supplyChecks(made),
    ...switchChecks(made),
    ...towedChecks(made),
  ];
}

const has = ({ network }: Made, id: string) => network.nodes.some((node) => node.id === id);
const hasWay = ({ network }: Made, id: string) => network.elements.some((way) => way.id === id);

/** How each tank falls in each state: which state makes it fall says which side of the brakes leaks. */
function fallChecks(made: Made): Bare[] {
  const tanks = [
    ['primary tank', 'primary-tank', 'the primary gauge'],
    ['secondary tank', 'secondary-tank', 'the secondary gauge'],
    ['supply tank', 'supply-tank', 'a gauge on the supply tank'],
  ] as const;
  const states = [
    'parked',
    'released',
    'applied',
    ...(made.tows ? (['red out'] as const) : []),
  ] as const;
  return tanks.flatMap(([place, part, gauge]) =>
    has(made, place)
      ? states.map((state): Bare => ({
          id: `0/watch/${place}/${state}`,
          act: 'watch',
          unit: 0,
          part,
          title: `Watch ${gauge} for two minutes`,
          state: STATES[state],
          how: `Read ${gauge}, wait two minutes with nothing moved, and read it again.`,
          cautions: state === 'parked' ? [] : [ROLL],
          tools: place === 'supply tank' ? ['gauge', 'tee'] : [],
          minutes: place === 'supply tank' ? 5 : 2.5,
          answer: perMinute(0.35),
          sound: 'Less than its limit, and no more than parked.',
          doing: { does: 'fall', place, minutes: 2 },
        }))
      : [],
  );
}

/** Drains one tank and watches what should not go with it. */
function isolateChecks(made: Made): Bare[] {
  if (!has(made, 'supply tank')) return [];
  const found: Bare[] = [];
  const add = (
    part: string,
    title: string,
    how: string,
    doing: Extract<Bare['doing'], { does: 'drained' }>,
    spread: number,
    sound: string,
    state: RigStateId = 'parked',
  ) => {
    if (!has(made, doing.place) || !has(made, doing.tank) || !hasWay(made, doing.drain)) return;
    found.push({
      id: `0/watch/${doing.drain}/${doing.place}/${doing.cyclesPark ? 'cycled' : doing.tells}`,
      act: 'watch',
      unit: 0,
      part,
      title,
      state: STATES[state],
      how,
      cautions: state === 'parked' ? [EYES] : [EYES, ROLL],
      tools: doing.place.endsWith('tank') ? [] : ['gauge', 'tee'],
      minutes: 5,
      answer: psiShape(spread),
      sound,
      doing,
    });
  };
  const drained = { does: 'drained', underPsi: 5, pedalPsi: 0, tells: 'fall' } as const;
  const supply = { ...drained, drain: 'supply drain', tank: 'supply tank' } as const;
  const primary = { ...drained, drain: 'primary drain', tank: 'primary tank' } as const;
  for (const circuit of ['primary', 'secondary'] as const) {
    add(
      `${circuit}-check`,
      `Drain supply and watch ${circuit}`,
      `Open the supply drain and leave it open. Read ${circuit} at once and a minute later.`,
      { ...supply, place: `${circuit} tank` },
      1.2,
      `The ${circuit} check holds: nothing falls.`,
    );
  }
  add(
    'dash-double-check',
    'Drain primary and watch secondary',
    'Open the primary drain and leave it open. Read secondary at once and a minute later.',
    { ...primary, place: 'secondary tank' },
    1.5,
    'Secondary holds.',
  );
  add(
    'dash-double-check',
    'Drain primary, set and release the park brake, and read the springs',
    'With the primary tank empty, pull the park control, push it in again, and read a gauge in the spring line.',
    { ...primary, place: 'spring line', tells: 'reading', cyclesPark: true },
    6,
    'Secondary releases them.',
    // With the trailer supplied, its tanks would feed the dash back through the supply valve.
    made.tows ? 'red out' : 'released',
  );
  add(
    'modulating-valve',
    'Drain primary, press, and read the springs',
    'With the primary tank empty and the park brake released, press the pedal to 40 psi and read a gauge in the spring line.',
    { ...primary, place: 'spring line', pedalPsi: 40, tells: 'reading' },
    6,
    'The springs are let on in proportion.',
    'released',
  );
  const secondary = { ...drained, drain: 'secondary drain', tank: 'secondary tank' } as const;
  for (const [from, other] of [
    [primary, 'secondary'],
    [secondary, 'primary'],
  ] as const) {
    add(
      made.parts[0]?.has('foot-double-check') ? 'foot-double-check' : 'trailer-control-valve',
      `Drain ${from.drain.replace(' drain', '')}, press, and read the trailer’s service line`,
      `With that tank empty, press the pedal to 40 psi: ${other} has to brake the trailer alone.`,
      { ...from, place: 'trailer service line', pedalPsi: 40, tells: 'reading' },
      4,
      'About 40 psi.',
      'released',
    );
  }
  return found;
}

function supplyChecks(made: Made): Bare[] {
  if (!has(made, 'supply tank')) return [];
  const base = { unit: 0, state: STATES.loading } as const;
  const checks: Bare[] = [
    {
      ...base,
      id: '0/time/build-up',
      act: 'time',
      part: 'compressor',
      title: 'Time the build-up, 85 to 100 psi',
      how: 'Pump the tanks under 85 psi, hold the engine at 1,000 rpm, and time the slower gauge from 85 to 100.',
      cautions: [],
      tools: ['timer'],
      minutes: 3,
      answer: { kind: 'number', unit: 's', resolution: 1, error: 1, spread: 4 },
      sound: 'Inside the limit, and near its own earlier time.',
      doing: { does: 'build', place: 'primary tank', fromPsi: 85, toPsi: 100 },
    },
    ...(['out', 'in'] as const).map((way): Bare => ({
      ...base,
      id: `0/read/governor/${way}`,
      act: 'read',
      part: 'governor',
      title: `Read governor cut-${way}`,
      how:
        way === 'out'
          ? 'With a gauge on the supply tank, run the engine fast and read the most it comes to.'
          : 'After cut-out pump the pedal in steps, and read where the compressor starts to load.',
      cautions:
        way === 'out'
          ? ['If it goes past 150 psi and the safety valve does not open, stop the engine.']
          : [],
      tools: ['gauge', 'tee'],
      minutes: 4,
      answer: psiShape(2.2),
      sound: way === 'out' ? 'What the governor is set to.' : '20 to 25 psi under cut-out.',
      doing: { does: 'governor', way },
    })),
  ];
  if (hasWay(made, 'purge valve')) {
    checks.push(
      {
        ...base,
        id: '0/listen/purge/blast',
        act: 'listen',
        part: 'dryer',
        title: 'Hear the dryer blow off at cut-out',
        how: 'Stand clear of the dryer and wait for cut-out: it should blow off at once and hard.',
        cautions: [EYES, 'Keep clear of the dryer: it blows off without warning.'],
        tools: [],
        minutes: 1,
        answer: {
          kind: 'choice',
          choices: [
            { id: 'blast', title: 'a hard blast' },
            { id: 'weak', title: 'weak or slow' },
            { id: 'none', title: 'nothing' },
          ],
        },
        sound: 'A hard blast.',
        doing: { does: 'blast', way: 'purge valve' },
      },
      {
        ...base,
        id: '0/feel/supply-drain/damp',
        act: 'feel',
        part: 'dryer',
        title: 'Feel the air at the supply drain',
        state: STATES.parked,
        how: 'Drain off any water first, then let air over the back of a dry hand or a mirror.',
        cautions: [EYES],
        tools: ['mirror'],
        minutes: 1,
        answer: graded(WET),
        sound: 'Dry.',
        doing: { does: 'damp' },
      },
    );
  }
  return checks;
}

function switchChecks(made: Made): Bare[] {
  const { network } = made;
  if (!has(made, 'supply tank')) return [];
  const drains = network.elements
    .filter(({ does, unit, id }) => does === 'drain' && unit === 0 && id !== 'supply drain')
    .map(({ id }) => id);
  const choices = [
    { id: 'on', title: 'on' },
    { id: 'off', title: 'off' },
  ];
  const found: Bare[] = network.latches.flatMap((latch): Bare[] => {
    const place = network.nodes[latch.node]?.id ?? '';
    const base = {
      unit: latch.unit,
      part: latch.part,
      state: STATES.released,
      tools: [],
      minutes: 4,
    };
    if (latch.role === 'low-air switch') {
      const own = place.replace(' tank', ' drain');
      return [
        {
          ...base,
          id: `0/read/${latch.id}`,
          act: 'read',
          title: `Read where the ${latch.id} comes on`,
          state: STATES.parked,
          how: 'Key on, engine off. Let its own tank down slowly and read the gauge as lamp and buzzer come on.',
          cautions: [],
          answer: psiShape(3.5),
          sound: 'Over 55 psi, before the controls pop out.',
          doing: { does: 'switches', latch: latch.id, drains: [own], place },
        },
      ];
    }
    if (latch.role === 'knob' && Number.isFinite(latch.lowPa)) {
      return [
        {
          ...base,
          id: `0/read/${latch.id}`,
          act: 'read',
          title: `Read where the ${latch.id} pops out`,
          how: 'Let all tanks down slowly with the control pushed in, and read the higher gauge as it comes out: the control follows it.',
          cautions: [ROLL],
          answer: psiShape(3),
          sound: 'Between 20 and 45 psi.',
          doing: { does: 'switches', latch: latch.id, drains, place },
        },
      ];
    }
    if (latch.role === 'stop-lamp switch') {
      return [
        {
          ...base,
          id: `0/read/${latch.id}`,
          act: 'read',
          title: `Read where the ${latch.id} comes on`,
          how: 'Press the pedal very slowly with a gauge on the delivery, and read as the lamps come on.',
          cautions: [ROLL],
          tools: ['gauge', 'tee', 'helper'],
          answer: psiShape(1.2, 0.5),
          sound: 'At about 5 psi.',
          doing: { does: 'lights', latch: latch.id, place },
        },
      ];
    }
    return [];
  });
  const lamps = network.latches.find(({ role }) => role === 'stop-lamp switch');
  for (const [lamp, part, pedalPsi, title] of [
    ['stop', lamps?.part ?? null, 0, 'See whether the stop lamps are off with the pedal up'],
    ['stop', lamps?.part ?? null, 20, 'See whether the stop lamps come on'],
    [
      'warning',
      network.latches.find(({ role }) => role === 'low-air switch')?.part ?? null,
      0,
      'See whether the low-air warning is silent, charged',
    ],
  ] as const) {
    if (part === null) continue;
    found.push({
      id: `0/lamp/${lamp}/${pedalPsi}`,
      act: 'lamp',
      unit: 0,
      part,
      title,
      state: STATES.released,
      how: 'Key on. Look at the lamp itself, not only at its tell-tale.',
      cautions: [ROLL],
      tools: lamp === 'stop' ? ['helper'] : [],
      minutes: 0.5,
      answer: { kind: 'choice', choices },
      sound: lamp === 'stop' && pedalPsi > 0 ? 'On.' : 'Off.',
      doing: { does: 'lamp', lamp, pedalPsi },
    });
  }
  return found;
}

/** What only a towed unit has: its tank with the supply line gone, its couplers and cocks. */
function towedChecks(made: Made): Bare[] {
  const units = [
    ...new Set(
      made.network.elements.flatMap(({ does, unit }) => (does === 'coupler' ? [unit] : [])),
    ),
  ];
  return units.flatMap((unit): Bare[] => {
    const at = towedPrefix(unit);
    const choices = (options: readonly [id: string, title: string][]): AnswerShape => ({
      kind: 'choice',
      choices: options.map(([id, title]) => ({ id, title })),
    });
    return [
      {
        id: `${unit}/watch/${at}tank/red out`,
        act: 'watch',
        unit,
        part: 'tank-check',
        title: 'Pull red and watch the trailer tank',
        state: STATES['red out'],
        how: 'With a gauge on the trailer’s tank, pull red: the tank has to stay. Read it two minutes later.',
        cautions: ['Chock the wheels.'],
        tools: ['gauge', 'tee'],
        minutes: 5,
        answer: perMinute(0.5),
        sound: 'It holds: its check keeps it.',
        doing: { does: 'fall', place: `${at}tank`, minutes: 2 },
      },
      {
        id: `${unit}/look/couplers`,
        act: 'look',
        unit,
        part: 'supply-coupler',
        title: 'Look which coupler is on which',
        state: STATES.parked,
        how: 'Follow each hose from the front: red to red, blue to blue.',
        cautions: [],
        tools: [],
        minutes: 0.5,
        answer: choices([
          ['right', 'right'],
          ['crossed', 'crossed'],
          ['apart', 'apart'],
        ]),
        sound: 'Right.',
        doing: { does: 'couplers', unit },
      },
      ...(
        [
          [
            'supply-cock',
            `${at}supply coupler`,
            `${at}cock`,
            'Look at the cock in front of the supply coupler',
            'open',
          ],
          [
            'supply-cock',
            `${at}supply cock`,
            `${at}supply cock open`,
            'Look at the last supply cock',
            'shut',
          ],
          [
            'service-cock',
            `${at}service cock`,
            `${at}service cock open`,
            'Look at the last service cock',
            'shut',
          ],
        ] as const
      )
        .filter(([part, way]) => hasWay(made, way) && (made.parts[unit]?.has(part) ?? false))
        .map(([part, way, fault, title, right]): Bare => ({
          id: `${unit}/look/${fault}`,
          act: 'look',
          unit,
          part,
          title,
          state: STATES.parked,
          how: 'A handle across the line is shut, along it is open: turn it to be sure that it moves.',
          cautions: [],
          tools: [],
          minutes: 0.5,
          answer: choices([
            ['right', `${right}, as it should be`],
            ['wrong', right === 'open' ? 'shut, or not fully open' : 'open, or not fully shut'],
          ]),
          sound: `${right === 'open' ? 'Open' : 'Shut'}.`,
          doing: { does: 'cock', way, fault },
        })),
    ];
  });
}
