import type { ChamberType } from '@keen-bleed/contract';
import { chamberTypes } from '@keen-bleed/contract/forms';
import { Controller, useFieldArray, type Control } from 'react-hook-form';
import { View } from 'react-native';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Pick } from '../ui/Pick';
import { Toggle } from '../ui/Toggle';
import { formBoxes } from './formBoxes';
import { Part } from './FormPart';
import type { UnitForm } from './unitForm';

interface ChamberFieldsProps {
  control: Control<UnitForm>;
  problems: Readonly<Record<string, string>>;
}

/** The chambers of a unit, a group to a line. */
export function ChamberFields({ control, problems }: ChamberFieldsProps) {
  const chambers = useFieldArray({ control, name: 'chambers' });
  const { text } = formBoxes(control, problems);
  return (
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
  );
}
