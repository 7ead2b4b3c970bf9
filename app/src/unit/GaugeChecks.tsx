import type { GaugeCheck, Unit } from '@keen-bleed/contract';
import { checkForm } from '@keen-bleed/contract/forms';
import { gaugeWord, hasCompressor, sayPressure, toPsi, withGaugeCheck } from '@keen-bleed/core';
import { useState } from 'react';
import { View } from 'react-native';
import { useMe } from '../account/session';
import { ask, asProblem } from '../wire/api';
import { useUnit } from '../data/useRecords';
import { sayDay } from '../data/when';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Field } from '../ui/Field';
import { Notice } from '../ui/Notice';
import { Segments } from '../ui/Segments';
import { Txt } from '../ui/Txt';

const schoolOf = (unit: Unit) => (unit.ports === 'numbers' ? 'numbers' : 'words');

/** Comparisons of the unit's gauges with a master gauge: they put every level right that is read from them. */
export function GaugeChecks({ unit }: { unit: Unit }) {
  const me = useMe();
  const [open, setOpen] = useState(false);
  if (!hasCompressor(unit.kind)) return null;
  return (
    <View style={{ gap: space.hair }}>
      <Txt as="heading" heading={2}>
        Against a master gauge
      </Txt>
      {unit.gaugeChecks.length === 0 ? (
        <Txt tone="quiet">Not compared yet. A dash gauge may be 7 % of cut-out off.</Txt>
      ) : null}
      {unit.gaugeChecks.map((check) => (
        <Txt key={`${check.gauge} ${check.dashPsi}`}>{sayCheck(check, unit)}</Txt>
      ))}
      {me.role !== 'viewer' && unit.retiredAtMs === null ? (
        open ? (
          <CheckForm unit={unit} onDone={() => setOpen(false)} />
        ) : (
          <Button
            title="Compare a gauge"
            onPress={() => setOpen(true)}
            style={{ alignSelf: 'flex-start' }}
          />
        )
      ) : null}
    </View>
  );
}

function sayCheck(check: GaugeCheck, unit: Unit): string {
  const say = (psi: number) => sayPressure(psi, unit.gauge.unit);
  const gauge = gaugeWord(check.gauge, schoolOf(unit));
  return `${gauge}: ${say(check.dashPsi)} where the master shows ${say(check.masterPsi)}, ${sayDay(check.atMs)}`;
}

/** A dash gauge this far from the master, psi, is a typing slip or a gauge to change, not to correct for. */
const MOST_APART_PSI = 20;

function CheckForm({ unit, onDone }: { unit: Unit; onDone: () => void }) {
  const { mutate } = useUnit(unit.id);
  const [gauge, setGauge] = useState<GaugeCheck['gauge']>('primary');
  const [dash, setDash] = useState('');
  const [master, setMaster] = useState('');
  const [trouble, setTrouble] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const { unit: pressureUnit } = unit.gauge;
  const psi = (text: string) => toPsi(Number(text.trim().replace(',', '.')), pressureUnit);
  const keep = async () => {
    const check: GaugeCheck = {
      gauge,
      dashPsi: psi(dash),
      masterPsi: psi(master),
      atMs: Date.now(),
    };
    if (dash.trim() === '' || master.trim() === '' || !(check.dashPsi > 0 && check.masterPsi > 0)) {
      setTrouble('Both readings are needed, as numbers.');
      return;
    }
    if (Math.abs(check.dashPsi - check.masterPsi) > MOST_APART_PSI) {
      setTrouble(
        `They are more than ${sayPressure(MOST_APART_PSI, pressureUnit)} apart: read both again. If it is so, change the gauge.`,
      );
      return;
    }
    const { id, revision, retiredAtMs: _retired, ...before } = unit;
    const draft = {
      ...before,
      gaugeChecks: withGaugeCheck(before.gaugeChecks, check),
    };
    const wrong = checkForm('unitDraft', draft)[0];
    if (wrong) {
      setTrouble(wrong.message);
      return;
    }
    setBusy(true);
    try {
      await mutate(await ask('PUT', `/api/v1/units/${id}`, { revision, draft }), {
        revalidate: false,
      });
      onDone();
    } catch (error) {
      setTrouble(asProblem(error).message);
    } finally {
      setBusy(false);
    }
  };
  return (
    <View style={{ gap: space.step, marginTop: space.near }}>
      <Segments
        label="Gauge compared"
        options={(['primary', 'secondary'] as const).map((role) => ({
          value: role,
          title: gaugeWord(role, schoolOf(unit)),
        }))}
        value={gauge === 'supply' ? 'primary' : gauge}
        onChange={setGauge}
      />
      <View style={{ flexDirection: 'row', gap: space.step }}>
        <View style={{ flex: 1 }}>
          <Field label="Dash shows" hint={pressureUnit} numeric value={dash} onChange={setDash} />
        </View>
        <View style={{ flex: 1 }}>
          <Field
            label="Master shows"
            hint={pressureUnit}
            numeric
            value={master}
            onChange={setMaster}
          />
        </View>
      </View>
      {trouble ? <Notice manner="trouble" title={trouble} /> : null}
      <View style={{ flexDirection: 'row', gap: space.step }}>
        <Button title="Back" onPress={onDone} />
        <Button
          title="Keep comparison"
          manner="main"
          busy={busy}
          onPress={() => void keep()}
          style={{ flexGrow: 1 }}
        />
      </View>
    </View>
  );
}
