import { View } from 'react-native';
import { space } from '../theme/space';
import { Rule } from '../ui/Rule';
import { Txt } from '../ui/Txt';
import type { Told } from './suspecting';

/** Suspects of a row that are named; the rest are counted. */
const NAMED = 4;

/** The trade's own table beside the ranking, and where the two differ. */
export function SecondOpinion({ table }: { table: Told['table'] }) {
  return (
    <View>
      <Txt as="heading" heading={2}>
        The trade’s table says
      </Txt>
      <View role="list" aria-label="The trade’s table">
        {table.map(({ found, suspects, check, differs }) => (
          <View key={found} role="listitem">
            <Rule />
            <View style={{ paddingVertical: space.near, gap: 2 }}>
              <Txt as="bodyBold">{found}</Txt>
              <Txt as="small">
                {`${suspects.slice(0, NAMED).join('; ')}${suspects.length > NAMED ? `; ${suspects.length - NAMED} more` : ''}`}
              </Txt>
              <Txt as="small" tone="quiet">{`To tell them apart: ${check}`}</Txt>
              {differs ? (
                <Txt as="smallBold">
                  It names none of the first three here: it goes by one reading, the ranking by all
                  of them and by this rig’s own air.
                </Txt>
              ) : null}
            </View>
          </View>
        ))}
      </View>
    </View>
  );
}
