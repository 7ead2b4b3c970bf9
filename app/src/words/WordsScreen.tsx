import { glossary } from '@keen-bleed/core';
import { View } from 'react-native';
import { space } from '../theme/space';
import { useWide } from '../theme/useWide';
import { LinkTo } from '../ui/LinkTo';
import { Rule } from '../ui/Rule';
import { Screen } from '../ui/Screen';
import { Txt } from '../ui/Txt';

/** What each term means, once. */
export function WordsScreen() {
  const wide = useWide();
  return (
    <Screen title="Words" lead="What each term means on every screen and report">
      <LinkTo to="/shop" style={{ marginTop: space.near, alignSelf: 'flex-start' }}>
        <Txt as="bodyBold" tone="accent">
          Back to the shop
        </Txt>
      </LinkTo>
      {glossary.map(({ title, terms }) => (
        <View key={title} style={{ marginTop: space.gap }}>
          <Txt as="heading" heading={2}>
            {title}
          </Txt>
          <View role="list" aria-label={title}>
            {terms.map(({ term, means }) => (
              <View key={term} role="listitem">
                <Rule />
                <View
                  style={{
                    flexDirection: wide ? 'row' : 'column',
                    columnGap: space.step,
                    paddingVertical: space.near,
                  }}
                >
                  <Txt as="bodyBold" style={wide ? { width: 220 } : null}>
                    {term}
                  </Txt>
                  <Txt style={wide ? { flex: 1 } : null}>{means}</Txt>
                </View>
              </View>
            ))}
            <Rule />
          </View>
        </View>
      ))}
    </Screen>
  );
}
