import type { Finding } from '@keen-bleed/contract';
import { View } from 'react-native';
import { space } from '../theme/space';
import { Rule } from '../ui/Rule';
import { Txt } from '../ui/Txt';
import { VerdictShape } from '../ui/VerdictSign';

/** What was seen, heard and felt in a run, each with what a bad one points at. */
export function FindingList({ findings }: { findings: readonly Finding[] }) {
  if (findings.length === 0) return null;
  return (
    <View>
      <Txt as="heading" heading={2} style={{ paddingBottom: space.hair }}>
        Seen, heard and felt
      </Txt>
      <View role="list" aria-label="Findings">
        {findings.map((finding) => {
          const bad = finding.standing === 'bad';
          const open = finding.standing === 'open';
          return (
            <View key={`${finding.stepId}/${finding.key}`} role="listitem">
              <Rule />
              <View style={{ paddingVertical: space.near, gap: 2 }}>
                <View style={{ flexDirection: 'row', gap: space.step }}>
                  <Txt style={{ flex: 1 }}>{finding.title}</Txt>
                  <View style={{ flexDirection: 'row', alignItems: 'center', gap: 6 }}>
                    {bad ? <VerdictShape verdict="fail" /> : null}
                    {open ? <VerdictShape verdict="cant-tell" /> : null}
                    <Txt as={bad || open ? 'bodyBold' : 'body'} tone={bad ? 'fail' : 'quiet'}>
                      {finding.said}
                    </Txt>
                  </View>
                </View>
                {finding.means ? <Txt tone="quiet">{finding.means}</Txt> : null}
              </View>
            </View>
          );
        })}
        <Rule />
      </View>
    </View>
  );
}
