import { pressureUnits, unitKinds } from '@keen-bleed/contract/forms';
import { hasCompressor, newUnitDraft, usualGauge } from '@keen-bleed/core';
import { useWatch, type Control, type UseFormSetValue } from 'react-hook-form';
import { View } from 'react-native';
import { space } from '../theme/space';
import { AirDetailFields } from './AirDetailFields';
import { ChamberFields } from './ChamberFields';
import { formBoxes } from './formBoxes';
import { Part, Row } from './FormPart';
import { TankFields } from './TankFields';
import { formOf, type UnitForm } from './unitForm';

interface UnitFormFieldsProps {
  control: Control<UnitForm>;
  setValue: UseFormSetValue<UnitForm>;
  problems: Readonly<Record<string, string>>;
}

/** Every box of a unit, in the order one walks around it. */
export function UnitFormFields({ control, setValue, problems }: UnitFormFieldsProps) {
  const kind = useWatch({ control, name: 'kind' });
  const pressureUnit = useWatch({ control, name: 'pressureUnit' });
  const volumeUnit = useWatch({ control, name: 'volumeUnit' });
  const gaugeUnit = useWatch({ control, name: 'gaugeUnit' });
  const buildYear = useWatch({ control, name: 'buildYear' });
  const powered = hasCompressor(kind);

  const { text, segments } = formBoxes(control, problems);

  return (
    <View style={{ gap: space.wide }}>
      <Part title="The unit">
        {segments(
          'kind',
          'Kind',
          unitKinds.map((each) => ({ value: each, title: each })),
          (picked) => {
            // A kind that makes its own air has other tanks than a towed one: its usual ones are laid in.
            if (hasCompressor(picked) === powered) return;
            const usual = formOf(newUnitDraft(picked, Number(buildYear) || 2000), pressureUnit);
            setValue('tanks', usual.tanks);
            setValue('chambers', usual.chambers);
            setValue('cutIn', usual.cutIn);
            setValue('cutOut', usual.cutOut);
          },
        )}
        <Row>
          {text('name', 'What it is', 'gritter…', false)}
          {text('number', 'Unit number', undefined, false)}
        </Row>
        <Row>
          {text('registration', 'Registration', undefined, false)}
          {text('frameNumber', 'Frame number', undefined, false)}
        </Row>
        <Row>
          {text('buildYear', 'Build year')}
          {text('buildMonth', 'Build month', '1 to 12')}
        </Row>
        <Row>
          {segments('yearIs', 'The year is', [
            { value: 'read', title: 'read off its plate' },
            { value: 'not-sure', title: 'not sure' },
          ])}
        </Row>
        <Row>
          {text('grossWeight', 'Gross weight', 'lb, plate')}
          {text('testEveryDays', 'Days between tests')}
        </Row>
        <Row>
          {segments('circuits', 'Circuits', [
            { value: 'dual', title: 'dual' },
            { value: 'single', title: 'single' },
          ])}
          {segments('ports', 'Port names', [
            { value: 'words', title: 'in words' },
            { value: 'numbers', title: 'numbered' },
          ])}
        </Row>
      </Part>

      <TankFields control={control} problems={problems} powered={powered} />

      <ChamberFields control={control} problems={problems} />

      {powered ? (
        <Part title="Governor" problem={undefined}>
          <Row>
            {text('cutIn', 'Governor cut-in', pressureUnit)}
            {text('cutOut', 'Governor cut-out', pressureUnit)}
          </Row>
        </Part>
      ) : null}

      {powered ? (
        <AirDetailFields control={control} problems={problems} volumeUnit={volumeUnit} />
      ) : null}

      <Part title="Gauge in the cab">
        {segments(
          'gaugeUnit',
          'Gauge unit',
          pressureUnits.map((each) => ({ value: each, title: each })),
          (picked) => {
            setValue('gaugeDivision', String(usualGauge[picked].division));
            setValue('gaugeTop', String(usualGauge[picked].top));
          },
        )}
        <Row>
          {text('gaugeDivision', 'One division', gaugeUnit)}
          {text('gaugeTop', 'Top of the scale', gaugeUnit)}
        </Row>
      </Part>

      <Part
        title="Maker’s own limits"
        lead="Only where the maker gives them. They stand before the rule set’s."
      >
        <Row>
          {powered ? text('makerBuildUpS', 'Build-up at most', 's') : null}
          {text('makerStaticLeak', 'Static leak at most', `${pressureUnit}/min`)}
          {powered ? text('makerAppliedLeak', 'Applied leak at most', `${pressureUnit}/min`) : null}
        </Row>
        {powered ? (
          <Row>
            {text('makerCutOutMin', 'Cut-out at least', pressureUnit)}
            {text('makerCutOutMax', 'Cut-out at most', pressureUnit)}
            {text('makerCutInMin', 'Cut-in at least', pressureUnit)}
            {text('makerWarningMin', 'Warning at least', pressureUnit)}
          </Row>
        ) : null}
      </Part>
    </View>
  );
}
