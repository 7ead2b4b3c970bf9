import type { TankRole } from '@keen-bleed/contract';
import { tankRoles } from '@keen-bleed/contract/forms';
import { Controller, useFieldArray, useWatch, type Control } from 'react-hook-form';
import { View } from 'react-native';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Pick } from '../ui/Pick';
import { formBoxes } from './formBoxes';
import { Part } from './FormPart';
import type { UnitForm } from './unitForm';

interface TankFieldsProps {
  control: Control<UnitForm>;
  problems: Readonly<Record<string, string>>;
  /** The unit makes its own air. */
  powered: boolean;
}

/** The tanks of a unit, one line each. */
export function TankFields({ control, problems, powered }: TankFieldsProps) {
  const tanks = useFieldArray({ control, name: 'tanks' });
  const volumeUnit = useWatch({ control, name: 'volumeUnit' });
  const volumeWords = volumeUnit === 'L' ? 'L' : 'in³';
  const { text } = formBoxes(control, problems);
  return (
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
  );
}
