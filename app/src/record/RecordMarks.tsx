import type { Gauge, RunFact } from '@keen-bleed/contract';
import { markRows, sayPressure, type RunState } from '@keen-bleed/core';
import { View } from 'react-native';
import { sayTime } from '../data/when';
import { space } from '../theme/space';
import { Rule } from '../ui/Rule';
import { Txt } from '../ui/Txt';

interface RecordMarksProps {
  state: RunState;
  /** In their order. */
  facts: readonly RunFact[];
  gauge: Gauge;
}

/** Every mark of a run as it was taken, with those that were corrected or taken back struck through. */
export function RecordMarks({ state, facts, gauge }: RecordMarksProps) {
  const titleOf = (stepId: string) =>
    state.procedure.steps.find((step) => step.id === stepId)?.title ?? stepId;
  return (
    <View>
      <Txt as="heading" heading={2}>
        Marks
      </Txt>
      <View role="list" aria-label="Marks">
        {markRows(state, facts).map((row) => (
          <View key={row.seq} role="listitem">
            <Rule />
            <View
              style={{
                flexDirection: 'row',
                alignItems: 'center',
                paddingVertical: space.near,
                gap: space.near,
              }}
            >
              <View style={{ flex: 1 }}>
                <Txt>{titleOf(row.step)}</Txt>
                <Txt as="small" tone="quiet">
                  {[
                    sayTime(Date.parse(row.timeUtc)),
                    row.method === 'crossing'
                      ? 'timed on the line'
                      : row.method === 'suggested'
                        ? 'suggested, not set'
                        : null,
                    row.state === 'stands' ? null : row.state,
                  ]
                    .filter((each) => each !== null)
                    .join(', ')}
                </Txt>
              </View>
              <Txt
                as="numberBold"
                style={row.state === 'stands' ? null : { textDecorationLine: 'line-through' }}
                tone={row.state === 'stands' ? 'ink' : 'quiet'}
              >
                {sayPressure(row.readingPsi, gauge.unit)}
              </Txt>
            </View>
          </View>
        ))}
        <Rule />
      </View>
    </View>
  );
}
