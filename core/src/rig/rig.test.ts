import { newUnitDraft } from './newUnit';
import { chamberVolumeIn3, RATED_CHAMBER_VOLUME_IN3 } from './chamberVolume';
import { checkUnit } from './checkUnit';
import { reservoirCheck } from './reservoirRule';

const truck = () => ({ ...newUnitDraft('truck', 2015), number: '7', name: 'Tipper' });

describe('chambers and tanks', () => {
  // [std: 49 CFR 571.121 Table V, value from memory]
  it.each([
    ['9', 25],
    ['12', 30],
    ['14', 40],
    ['16', 46],
    ['18', 50],
    ['20', 54],
    ['24', 67],
    ['30', 89],
    ['36', 135],
  ] as const)('rates a type %s chamber at %d in³', (type, volume) => {
    expect(RATED_CHAMBER_VOLUME_IN3[type]).toBe(volume);
  });

  it('adds two type 20 and four type 30 up to 464 in³, which ask for 5,568 in³ of tanks on a truck', () => {
    const chambers = [
      { type: '20', count: 2, springBrake: false },
      { type: '30', count: 4, springBrake: true },
    ] as const;
    expect(chamberVolumeIn3(chambers)).toBe(464);
    const tanks = [{ role: 'primary' as const, volumeIn3: 5568 }];
    const check = reservoirCheck({ kind: 'truck', tanks, chambers: [...chambers] });
    expect(check).toMatchObject({
      factor: 12,
      requiredIn3: 5568,
      enough: true,
      source: '49 CFR 571.121 S5.1.2.1',
    });
    const short = reservoirCheck({
      kind: 'truck',
      tanks: [{ role: 'primary', volumeIn3: 5567 }],
      chambers: [...chambers],
    });
    expect(short.enough).toBe(false);
  });

  it('asks 8 times of a trailer, and leaves accessory tanks out', () => {
    const check = reservoirCheck({
      kind: 'trailer',
      tanks: [
        { role: 'trailer', volumeIn3: 2848 },
        { role: 'accessory', volumeIn3: 9000 },
      ],
      chambers: [{ type: '30', count: 4, springBrake: true }],
    });
    expect(check).toMatchObject({ factor: 8, requiredIn3: 2848, actualIn3: 2848, enough: true });
  });

  it('says nothing of a type without a rated volume', () => {
    expect(chamberVolumeIn3([{ type: '6', count: 2, springBrake: false }])).toBeNull();
  });
});

describe('what a unit must be to make sense', () => {
  it('takes the usual layout of every kind', () => {
    for (const kind of ['truck', 'tractor', 'bus', 'trailer', 'dolly'] as const) {
      expect(checkUnit({ ...newUnitDraft(kind, 2015), number: '1', name: 'x' })).toEqual([]);
    }
  });

  it.each([
    [120, 100],
    [110, 110],
  ])(
    'refuses a governor with cut-in %d and cut-out %d, naming the field',
    (cutInPsi, cutOutPsi) => {
      const [problem] = checkUnit({ ...truck(), governor: { cutInPsi, cutOutPsi } });
      expect(problem?.field).toBe('governor.cutInPsi');
      expect(problem?.message).toContain('below cut-out');
    },
  );

  it('wants a governor where there is a compressor and none where there is not', () => {
    expect(checkUnit({ ...truck(), governor: null })[0]?.field).toBe('governor');
    const trailer = {
      ...newUnitDraft('trailer', 2015),
      governor: { cutInPsi: 100, cutOutPsi: 120 },
    };
    expect(checkUnit(trailer)[0]?.field).toBe('governor');
  });

  it('wants both service tanks with dual circuits, one with a single one, a trailer tank on a trailer', () => {
    const primary = [{ role: 'primary' as const, volumeIn3: 2000 }];
    expect(checkUnit({ ...truck(), tanks: primary })[0]?.message).toContain('secondary');
    expect(checkUnit({ ...truck(), circuits: 'single', tanks: primary })).toEqual([]);
    expect(checkUnit({ ...newUnitDraft('trailer', 2015), tanks: primary })[0]?.field).toBe('tanks');
  });

  it('wants a gauge that reaches cut-out and can be read', () => {
    const low = checkUnit({ ...truck(), gauge: { unit: 'bar', division: 0.2, top: 8 } });
    expect(low[0]).toMatchObject({
      field: 'gauge.top',
      message: expect.stringContaining('8.6 bar') as string,
    });
    const coarse = checkUnit({ ...truck(), gauge: { unit: 'psi', division: 50, top: 150 } });
    expect(coarse[0]?.field).toBe('gauge.division');
  });

  it('wants the maker’s own window the right way round', () => {
    const crossed = { cutOutMinPsi: 130, cutOutMaxPsi: 120 };
    expect(checkUnit({ ...truck(), makerLimits: crossed })[0]?.field).toBe(
      'makerLimits.cutOutMinPsi',
    );
    const above = { cutInMinPsi: 125, cutOutMaxPsi: 120 };
    expect(checkUnit({ ...truck(), makerLimits: above })[0]?.field).toBe('makerLimits.cutInMinPsi');
  });
});
