import type { ChamberType, TankRole } from '@keen-bleed/contract';
import { chamberTypes, pressureUnits, tankRoles, unitKinds } from '@keen-bleed/contract/forms';
import { hasCompressor, newUnitDraft, usualGauge } from '@keen-bleed/core';
import type { ReactNode } from 'react';
import {
  Controller,
  useFieldArray,
  useWatch,
  type Control,
  type FieldPath,
  type UseFormSetValue,
} from 'react-hook-form';
import { View } from 'react-native';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Field } from '../ui/Field';
import { Pick } from '../ui/Pick';
import { Segments } from '../ui/Segments';
import { Toggle } from '../ui/Toggle';
import { Txt } from '../ui/Txt';
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
  const tanks = useFieldArray({ control, name: 'tanks' });
  const chambers = useFieldArray({ control, name: 'chambers' });
  const powered = hasCompressor(kind);
  const volumeWords = volumeUnit === 'L' ? 'L' : 'in³';

  const text = (name: FieldPath<UnitForm>, label: string, hint?: string, numeric = true) => (
    <Controller
      control={control}
      name={name}
      render={({ field }) => (
        <View style={{ flexGrow: 1, flexBasis: 110, minWidth: 0 }}>
          <Field
            label={label}
            {...(hint ? { hint } : {})}
            numeric={numeric}
            value={typeof field.value === 'string' ? field.value : ''}
            onChange={field.onChange}
            onBlur={field.onBlur}
            problem={problems[name]}
            testID={name}
          />
        </View>
      )}
    />
  );
  const segments = <T extends string>(
    name: FieldPath<UnitForm>,
    label: string,
    options: readonly { value: T; title: string }[],
    after?: (value: T) => void,
  ) => (
    <Controller
      control={control}
      name={name}
      render={({ field }) => (
        <View style={{ gap: space.hair, flexGrow: 1 }}>
          <Txt as="smallBold">{label}</Txt>
          <Segments
            label={label}
            options={options}
            value={field.value as T}
            onChange={(value) => {
              field.onChange(value);
              after?.(value);
            }}
          />
        </View>
      )}
    />
  );

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
          {text('buildYear', 'Build year')}
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

      <Part title="Tanks" problem={problems.tanks}>
        {tanks.fields.map((tank, index) => (
          <View
            key={tank.id}
            style={{
              flexDirection: 'row',
              gap: space.step,
              alignItems: 'flex-end',
            }}
          >
            <Controller
              control={control}
              name={`tanks.${index}.role`}
              render={({ field }) => (
                <Pick<TankRole>
                  label={`Tank ${index + 1}`}
                  options={tankRoles}
                  value={field.value}
                  onChange={field.onChange}
                />
              )}
            />
            {text(`tanks.${index}.volume`, 'Volume', volumeWords)}
            <Button
              title="Remove"
              manner="quiet"
              label={`Remove tank ${index + 1}`}
              onPress={() => tanks.remove(index)}
            />
          </View>
        ))}
        <Button
          title="Add a tank"
          onPress={() => tanks.append({ role: powered ? 'supply' : 'trailer', volume: '' })}
          style={{ alignSelf: 'flex-start' }}
        />
      </Part>

      <Part title="Chambers" problem={problems.chambers}>
        {chambers.fields.map((group, index) => (
          <View
            key={group.id}
            style={{
              flexDirection: 'row',
              flexWrap: 'wrap',
              gap: space.step,
              alignItems: 'flex-end',
            }}
          >
            {text(`chambers.${index}.count`, 'How many')}
            <Controller
              control={control}
              name={`chambers.${index}.type`}
              render={({ field }) => (
                <Pick<ChamberType>
                  label={`Type, group ${index + 1}`}
                  options={chamberTypes}
                  value={field.value}
                  onChange={field.onChange}
                />
              )}
            />
            <Controller
              control={control}
              name={`chambers.${index}.springBrake`}
              render={({ field }) => (
                <Toggle label="Spring brake" value={field.value} onChange={field.onChange} />
              )}
            />
            <Controller
              control={control}
              name={`chambers.${index}.loadSensing`}
              render={({ field }) => (
                <Toggle label="Load-sensing" value={field.value} onChange={field.onChange} />
              )}
            />
            <Button
              title="Remove"
              manner="quiet"
              label={`Remove chamber group ${index + 1}`}
              onPress={() => chambers.remove(index)}
            />
          </View>
        ))}
        <Button
          title="Add chambers"
          onPress={() =>
            chambers.append({ type: '30', count: '2', springBrake: true, loadSensing: false })
          }
          style={{ alignSelf: 'flex-start' }}
        />
      </Part>

      {powered ? (
        <Part title="Governor" problem={undefined}>
          <Row>
            {text('cutIn', 'Governor cut-in', pressureUnit)}
            {text('cutOut', 'Governor cut-out', pressureUnit)}
          </Row>
        </Part>
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

function Part({
  title,
  lead,
  problem,
  children,
}: {
  title: string;
  lead?: string;
  problem?: string | undefined;
  children: ReactNode;
}) {
  return (
    <View style={{ gap: space.gap }}>
      <View>
        <Txt as="heading" heading={2}>
          {title}
        </Txt>
        {lead ? <Txt tone="quiet">{lead}</Txt> : null}
        {problem ? (
          <Txt as="small" tone="fail" live="polite">
            {problem}
          </Txt>
        ) : null}
      </View>
      {children}
    </View>
  );
}

function Row({ children }: { children: ReactNode }) {
  return (
    <View style={{ flexDirection: 'row', flexWrap: 'wrap', gap: space.step }}>{children}</View>
  );
}
