import type { YardRow } from '@keen-bleed/contract';
import { View } from 'react-native';
import { space } from '../theme/space';
import { LinkTo } from '../ui/LinkTo';
import { Rule } from '../ui/Rule';
import { Txt } from '../ui/Txt';

/** The open jobs of a unit, each with where it stands. */
export function UnitJobs({ jobs }: { jobs: YardRow['jobs'] }) {
  if (jobs.length === 0) return null;
  return (
    <View style={{ marginTop: space.gap }}>
      <Txt as="heading" heading={2}>
        Open jobs
      </Txt>
      <View role="list" aria-label="Open jobs">
        {jobs.map(({ id, line, station, owed }) => (
          <View key={id} role="listitem">
            <Rule />
            <LinkTo to={`/job/${id}`} style={{ paddingVertical: space.near }}>
              <Txt as="bodyBold">{line}</Txt>
              <Txt as="small" tone="quiet">
                {owed.length > 0 ? `at ${station}, retest owed` : `at ${station}`}
              </Txt>
            </LinkTo>
          </View>
        ))}
        <Rule />
      </View>
    </View>
  );
}
