import { halfDivisionPsi, nudgedPsi, sayPressure, type LiveMark } from '@keen-bleed/core';
import { View } from 'react-native';
import { sayTime } from '../data/when';
import type { LiveRun } from '../store/useRun';
import { space } from '../theme/space';
import { Button } from '../ui/Button';
import { Rule } from '../ui/Rule';
import { Txt } from '../ui/Txt';

/** The marks made so far, each of which can still be put right until the run is closed. */
export function MarkList({ run }: { run: LiveRun }) {
  const { state, record } = run;
  const { gauge } = state.unit;
  if (state.marks.length === 0) return null;
  const titleOf = (stepId: string) =>
    state.procedure.steps.find((step) => step.id === stepId)?.title ?? stepId;
  const correct = (mark: LiveMark, moves: number) => {
    const halves = moves * (mark.method === 'crossing' ? 2 : 1);
    void record({
      kind: 'mark',
      stepId: mark.stepId,
      key: mark.key,
      atMs: mark.atMs,
      readingPsi: nudgedPsi(mark.readingPsi, halves, gauge),
      resolutionPsi: halfDivisionPsi(gauge),
      method: mark.method,
      ...(mark.takes > 1 ? { takes: mark.takes } : {}),
      supersedes: mark.factId,
    });
  };
  return (
    <View>
      <Txt as="heading" heading={2}>
        Marks
      </Txt>
      <View role="list" aria-label="Marks">
        {state.marks.map((mark) => {
          const reading = sayPressure(mark.readingPsi, gauge.unit);
          return (
            <View key={`${mark.stepId}/${mark.key}/${mark.atMs}`} role="listitem">
              <Rule />
              <View
                style={{
                  flexDirection: 'row',
                  alignItems: 'center',
                  gap: space.near,
                }}
              >
                <View style={{ flex: 1 }}>
                  <Txt>{titleOf(mark.stepId)}</Txt>
                  <Txt as="small" tone="quiet">
                    {`${sayTime(mark.atMs)}${mark.method === 'crossing' ? ', timed on the line' : mark.suggested ? ', suggested, not set' : ''}`}
                  </Txt>
                </View>
                <Txt as="numberBold">{reading}</Txt>
                <Button
                  manner="quiet"
                  title="−"
                  label={`Correct ${reading} down`}
                  onPress={() => correct(mark, -1)}
                />
                <Button
                  manner="quiet"
                  title="+"
                  label={`Correct ${reading} up`}
                  onPress={() => correct(mark, 1)}
                />
              </View>
            </View>
          );
        })}
        <Rule />
      </View>
    </View>
  );
}
