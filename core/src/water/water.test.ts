import fc from 'fast-check';
import psychrolib from 'psychrolib';
import { dryerHealth, settlesPerKg, type Duty } from './dryerHealth';
import { amountOfGrade, gradeOfAmount, totalMl, type Drained } from './drained';
import { frostRisks } from './frost';
import { dewPointC, humidityRatio, saturatedRatio, saturationPa, SEA_LEVEL_PA } from './moistAir';

interface Psychrolib {
  SI: number;
  SetUnitSystem: (system: number) => void;
  GetSatVapPres: (celsius: number) => number;
  GetHumRatioFromRelHum: (celsius: number, humidity: number, pa: number) => number;
  GetTDewPointFromRelHum: (celsius: number, humidity: number) => number;
}

const library = psychrolib as unknown as Psychrolib;
library.SetUnitSystem(library.SI);

const PSI_120 = SEA_LEVEL_PA + 120 * 6_894.757;

describe('what came out of a drain', () => {
  it('is an answer of the catalogue, and that answer an amount again', () => {
    for (const amount of ['spoonful', 'cup', 'more'] as const) {
      expect(gradeOfAmount(amount)).toBe(amount);
      expect(amountOfGrade(amount, true)).toBe(amount);
    }
    expect([gradeOfAmount('dry'), gradeOfAmount('mist')]).toEqual(['none', 'none']);
    expect([amountOfGrade('none', false), amountOfGrade('none', true)]).toEqual(['dry', 'mist']);
    expect(amountOfGrade('pint', false)).toBeNull();
  });
});

describe('moist air, against psychrolib', () => {
  it('has the same pressure of vapour from −60 to 120 °C', () => {
    for (let celsius = -60; celsius <= 120; celsius += 3) {
      const theirs = library.GetSatVapPres(celsius);
      expect(Math.abs(saturationPa(celsius) / theirs - 1)).toBeLessThan(1e-6);
    }
  });

  it('has the same water in the air and the same dew point', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -25, max: 45, noNaN: true }),
        fc.double({ min: 0.05, max: 1, noNaN: true }),
        (celsius, humidity) => {
          const theirs = library.GetHumRatioFromRelHum(celsius, humidity, SEA_LEVEL_PA);
          expect(Math.abs(humidityRatio(celsius, humidity) / theirs - 1)).toBeLessThan(1e-5);
          const dew = library.GetTDewPointFromRelHum(celsius, humidity);
          expect(Math.abs(dewPointC(humidity * saturationPa(celsius)) - dew)).toBeLessThan(0.02);
        },
      ),
    );
  });
});

describe('the trade’s example', () => {
  it('leaves 16.6 g of each kilogram at 30 °C and 80 %, 120 psi and 40 °C', () => {
    expect(1_000 * humidityRatio(30, 0.8)).toBeCloseTo(21.6, 1);
    expect(1_000 * saturatedRatio(40, PSI_120)).toBeCloseTo(5, 1);
    const duty = { airC: 30, humidity: 0.8, tankPsi: 120 };
    expect(1_000 * settlesPerKg('none', duty, 40, 52)).toBeCloseTo(16.6, 1);
  });

  it('makes about 127 ml an hour at 15 scfm loaded a quarter of the time', () => {
    const kgPerHour = (60 * 15 * 0.25 * 1.204) / 35.3147;
    const duty = { airC: 30, humidity: 0.8, tankPsi: 120 };
    const ml = 1_000 * kgPerHour * settlesPerKg('none', duty, 40, 52);
    expect(ml).toBeGreaterThan(125);
    expect(ml).toBeLessThan(129);
  });
});

const DUTY: Duty = {
  airC: 25,
  humidity: 0.7,
  engineHours: 8,
  loadedShare: 0.2,
  scfm: 14,
  tankPsi: 120,
  hasDryer: true,
};

describe('how a dryer is', () => {
  it('is in order where the tanks are dry, and not where they give a cup', () => {
    expect(dryerHealth(DUTY, [0, 1]).chances!['in order']).toBeGreaterThan(0.95);
    expect(dryerHealth(DUTY, [400, 1_200]).chances!['in order']).toBeLessThan(0.05);
  });

  it('leaves more the worse it is, and nothing settles under a sound one', () => {
    const [sound, spent, none] = dryerHealth(DUTY, null).leaves;
    expect(sound!.toMl).toBeLessThan(2);
    expect(spent!.ml).toBeGreaterThan(10 * sound!.ml);
    expect(none!.ml).toBeGreaterThan(spent!.ml);
  });

  it('cannot tell in dry cold air, or where the engine hardly ran', () => {
    const cold = { ...DUTY, airC: -15, humidity: 0.1, engineHours: 1 };
    expect(dryerHealth(cold, [0, 1]).cannotTell).toBe(true);
    expect(dryerHealth({ ...DUTY, engineHours: 0.02 }, [0, 1]).cannotTell).toBe(true);
  });

  it('has chances that sum to one whatever came', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 3_000, noNaN: true }), (ml) => {
        const { chances } = dryerHealth(DUTY, [ml, ml + 10]);
        const sum = chances!['in order'] + chances!.spent + chances!.none;
        expect(sum).toBeCloseTo(1, 9);
      }),
      { numRuns: 25 },
    );
  });

  it('freezes tonight past a spent dryer, not past one in order, and lines at less pressure last', () => {
    const cool = { ...DUTY, airC: 3, humidity: 0.85 };
    const spent = frostRisks(dryerHealth(cool, [40, 120]), -8, 120);
    const sound = frostRisks(dryerHealth(cool, [0, 1]), -8, 120);
    const of = (risks: typeof spent, id: string) => risks.find((each) => each.id === id)!;
    expect(of(spent, 'supply').chance).toBeGreaterThan(0.9);
    expect(of(sound, 'supply').chance).toBeLessThan(0.1);
    expect(of(sound, 'service').dewPointC).toBeLessThan(of(sound, 'supply').dewPointC);
    expect(
      frostRisks(dryerHealth(cool, [40, 120]), 3, 120).every(({ chance }) => chance === 0),
    ).toBe(true);
  });
});

describe('what drains gave', () => {
  const drain = (of: Partial<Drained>): Drained => ({
    place: 'supply tank',
    amount: 'dry',
    ml: null,
    what: [],
    stuck: false,
    atMs: 1,
    ...of,
  });

  it('adds up amounts, measured ones more narrowly', () => {
    expect(totalMl([drain({ amount: 'spoonful' }), drain({ amount: 'cup' })])).toEqual([35, 280]);
    const [from, to] = totalMl([drain({ amount: 'cup', ml: 100 })]);
    expect(from).toBe(79);
    expect(to).toBe(121);
  });
});
