import type { PlanSymbol } from '@keen-bleed/core/drawing';
import { View } from 'react-native';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Rule } from '../ui/Rule';
import { Txt } from '../ui/Txt';

interface PlanListProps {
  symbols: readonly PlanSymbol[];
  chosen: string | null;
  onChoose: (symbol: PlanSymbol) => void;
  /** How each part stands, in a few words. */
  say: (symbol: PlanSymbol) => string;
}

const SIDES = { left: 'left', centre: 'middle', right: 'right' } as const;

/** The drawing in words: every part in walking order, from the front, with its side. */
export function PlanList({ symbols, chosen, onChoose, say }: PlanListProps) {
  const order = [...symbols].sort((a, b) => a.unit - b.unit);
  return (
    <View role="list" aria-label="Parts in walking order">
      {order.map((symbol) => (
        <View key={symbol.key} role="listitem">
          <Rule />
          <View
            style={{
              flexDirection: 'row',
              alignItems: 'center',
              gap: space.near,
              paddingVertical: space.hair,
            }}
          >
            <View style={{ flex: 1 }}>
              <Txt as={symbol.key === chosen ? 'bodyBold' : 'body'}>{symbol.title}</Txt>
              <Txt as="small" tone="quiet">{`${SIDES[symbol.side]} · ${say(symbol)}`}</Txt>
            </View>
            <Button title="Show" label={`Show ${symbol.title}`} onPress={() => onChoose(symbol)} />
          </View>
        </View>
      ))}
      <Rule />
    </View>
  );
}
