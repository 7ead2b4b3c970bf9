import type { AirDetails, Unit } from '@keen-bleed/contract';
import {
  brakeTankVolumeIn3,
  in3FromLitres,
  litresFromIn3,
  reservoirCheck,
  rounded,
  sayLimit,
  sayPressure,
} from '@keen-bleed/core';
import { useMemo, type ReactNode } from 'react';
import { View } from 'react-native';
import { PlanBeside } from '../plan/PlanBeside';
import { usePrefs } from '../prefs/prefs';
import { space } from '../theme/space';
import { LinkTo } from '../ui/LinkTo';
import { Rule } from '../ui/Rule';
import { Txt } from '../ui/Txt';
import { VerdictSign } from '../ui/VerdictSign';

const litres = (in3: number) => `${rounded(litresFromIn3(in3), 1)} L`;
const in3 = (volume: number) => `${volume.toLocaleString('en-GB')} in³`;

/** What is known of a unit's air beyond tanks and chambers, a line each. */
function sayAirDetails(air: AirDetails): string[] {
  const has = (fitted: boolean | undefined, what: string) =>
    fitted === undefined ? null : fitted ? what : `no ${what}`;
  return [
    air.compressorLPerTurn !== undefined
      ? `compressor of ${in3(Number(rounded(in3FromLitres(air.compressorLPerTurn), 1)))}, ${rounded(air.compressorLPerTurn, 2)} L a turn`
      : null,
    air.compressorPerEngineTurn !== undefined
      ? `it turns ${rounded(air.compressorPerEngineTurn, 2)} times for one of the engine`
      : null,
    has(air.modulatingValve, 'modulating valve'),
    has(air.antiCompounding, 'anti-compounding'),
    air.stopLampSwitches === 'two' ? 'a stop-lamp switch a circuit' : null,
    air.lowAirSwitches === 'supply-tank' ? 'one low-air switch, on the supply tank' : null,
    air.dryerPurge === 'service-tank'
      ? 'dryer purges from a service tank: its dip at cut-out is no leak'
      : null,
  ].filter((each) => each !== null);
}

/** A unit's air system in figures: tanks, chambers, governor, gauge, and the rule that binds them. */
export function AirSystem({ unit }: { unit: Unit }) {
  const { unit: sayIn } = usePrefs();
  const rig = useMemo(() => ({ unit, towed: [] }), [unit]);
  const check = reservoirCheck(unit);
  const maker = unit.makerLimits;
  const makerWords = [
    maker.cutOutMinPsi !== undefined || maker.cutOutMaxPsi !== undefined
      ? `cut-out ${sayLimit({ min: maker.cutOutMinPsi ?? null, max: maker.cutOutMaxPsi ?? null }, 'psi', sayIn)}`
      : null,
    maker.cutInMinPsi !== undefined
      ? `cut-in at least ${sayPressure(maker.cutInMinPsi, sayIn)}`
      : null,
    maker.buildUpMaxS !== undefined ? `build-up at most ${maker.buildUpMaxS} s` : null,
    maker.staticLeakMaxPsiPerMin !== undefined
      ? `static leak ${sayLimit({ min: null, max: maker.staticLeakMaxPsiPerMin }, 'psi/min', sayIn)}`
      : null,
  ].filter((each) => each !== null);
  const airWords = unit.air ? sayAirDetails(unit.air) : [];
  return (
    <View>
      <Txt as="heading" heading={2}>
        Air system
      </Txt>
      <LinkTo to={`/unit/${unit.id}/air`}>
        <Txt as="bodyBold" tone="accent">
          See it drawn
        </Txt>
      </LinkTo>
      <LinkTo to={`/unit/${unit.id}/parts`}>
        <Txt as="bodyBold" tone="accent">
          {`Parts: ${unit.parts?.length ?? 0} confirmed`}
        </Txt>
      </LinkTo>
      <Line title="Tanks">
        {unit.tanks.map((tank, index) => (
          <Txt key={index}>{`${tank.role}  ${in3(tank.volumeIn3)}, ${litres(tank.volumeIn3)}`}</Txt>
        ))}
      </Line>
      <Line title="Chambers">
        {unit.chambers.map((group, index) => (
          <Txt
            key={index}
          >{`${group.count} of type ${group.type}${group.springBrake ? ', spring brake' : ''}${group.loadSensing ? ', load-sensing' : ''}`}</Txt>
        ))}
      </Line>
      <Line title="Tanks to chambers">
        {check.chambersIn3 === null || check.requiredIn3 === null ? (
          <Txt>Type 6 has no rated volume: the rule cannot be checked.</Txt>
        ) : (
          <>
            <Txt>{`${in3(brakeTankVolumeIn3(unit.tanks))} of ${in3(check.requiredIn3)} needed`}</Txt>
            <Txt
              as="small"
              tone="quiet"
            >{`${check.factor} × ${in3(check.chambersIn3)} of chambers, ${check.source}`}</Txt>
            <VerdictSign verdict={check.enough ? 'pass' : 'fail'} />
          </>
        )}
      </Line>
      {unit.governor ? (
        <Line title="Governor">
          <Txt>{`in at ${sayPressure(unit.governor.cutInPsi, sayIn)}, out at ${sayPressure(unit.governor.cutOutPsi, sayIn)}`}</Txt>
        </Line>
      ) : null}
      <Line title="Circuits">
        <Txt>{`${unit.circuits}${unit.ports === 'numbers' ? ', numbered ports' : ''}`}</Txt>
      </Line>
      {airWords.length > 0 ? (
        <Line title="Compressor and valves">
          {airWords.map((words) => (
            <Txt key={words}>{words}</Txt>
          ))}
        </Line>
      ) : null}
      <Line title="Gauge">
        <Txt>{`0 to ${unit.gauge.top} ${unit.gauge.unit}, a line every ${unit.gauge.division}`}</Txt>
      </Line>
      <Line title="Maker’s limits">
        <Txt tone={makerWords.length > 0 ? 'ink' : 'quiet'}>
          {makerWords.join('; ') || 'none given: the rule set’s stand'}
        </Txt>
      </Line>
      <Rule />
      <View style={{ marginTop: space.gap }}>
        <PlanBeside rig={rig} title="Seen from above" stepId={null} />
      </View>
    </View>
  );
}

function Line({ title, children }: { title: string; children: ReactNode }) {
  return (
    <>
      <Rule />
      <View
        style={{
          flexDirection: 'row',
          gap: space.step,
          paddingVertical: space.near,
        }}
      >
        <Txt tone="quiet" style={{ width: 128 }}>
          {title}
        </Txt>
        <View style={{ flex: 1, gap: 2 }}>{children}</View>
      </View>
    </>
  );
}
