import type { Check } from '@keen-bleed/core/checks';
import type { PlanSymbol } from '@keen-bleed/core/drawing';
import { useCallback, useState, type ReactNode } from 'react';
import { ScrollView, View } from 'react-native';
import { PlanView } from '../plan/PlanView';
import { useBringUp } from '../plan/useBringUp';
import { usePlan } from '../plan/usePlan';
import { usePrefs } from '../prefs/prefs';
import { space } from '../theme/space';
import { usePalette } from '../theme/usePalette';
import { useWide } from '../theme/useWide';
import { Segments } from '../ui/Segments';
import { Toggle } from '../ui/Toggle';
import { Txt } from '../ui/Txt';
import { useBoxSize } from '../ui/useBoxSize';
import { Waiting } from '../ui/Waiting';
import { BayPart } from './BayPart';
import type { BayFault, BaySetup } from './bayProtocol';
import type { Teed } from './teed';
import type { Bay } from './useBay';
import type { PracticeLog } from './usePracticeLog';

/** The smallest a drawing gets on a wide screen. */
const LEAST_SCALE = 0.85;

interface RigPaneProps {
  bay: Bay;
  setup: BaySetup;
  log: PracticeLog;
  onCheck: (check: Check) => void;
  teed: readonly Teed[];
  onTee: (at: Teed) => void;
  onSay: ((fault: BayFault) => void) | null;
  said: readonly string[];
}

/** A wide drawing is moved sideways; on a phone it always fits. */
const Sideways = ({ wide, children }: { wide: boolean; children: ReactNode }) =>
  wide ? (
    <ScrollView horizontal tabIndex={0} aria-label="The drawing, from front to rear">
      {children}
    </ScrollView>
  ) : (
    children
  );

/** The drawing of the rig in the Bay, with the part that was tapped. */
export function RigPane({ bay, setup, log, onCheck, teed, onTee, onSay, said }: RigPaneProps) {
  const palette = usePalette();
  const wide = useWide();
  const { unit: sayIn } = usePrefs();
  const [seeing, setSeeing] = useState(setup.hidden === null || setup.hidden === 0);
  const [shown, setShown] = useState('rig');
  const [chosen, setChosen] = useState<PlanSymbol | null>(null);
  // A part that is tapped again is shown itself, not what was opened beside it.
  const [taps, setTaps] = useState(0);
  const [box, onBox] = useBoxSize();
  const { scroller, onDrawing, bringUp } = useBringUp();
  const level =
    shown === 'rig' ? ({ show: 'rig' } as const) : ({ show: 'unit', unit: Number(shown) } as const);
  const { bound } = usePlan(setup.rig, wide ? 'left' : 'up', level, {
    shopAir: true,
    load: setup.load,
  });
  const units = [setup.rig.unit, ...setup.rig.towed];
  // On a wide screen it is never so small that it cannot be read: it is moved sideways instead.
  const scale = bound
    ? Math.min(1, Math.max(wide ? LEAST_SCALE : 0, box.width / bound.plan.width))
    : 1;
  const choose = useCallback(
    (symbol: PlanSymbol) => {
      setChosen(symbol);
      setTaps((n) => n + 1);
      bringUp(symbol, scale);
    },
    [bringUp, scale],
  );
  const last = log.done[0];
  const levels = [
    { value: 'rig', title: units.length > 1 ? 'Whole rig' : 'Large parts' },
    ...units.map(({ number }, n) => ({
      value: String(n),
      title: units.length > 1 ? number : 'Every part',
    })),
  ];
  return (
    <View style={{ flex: 1 }}>
      <ScrollView
        ref={scroller}
        style={{ flex: 1 }}
        contentContainerStyle={{ paddingBottom: space.wide, gap: space.near }}
      >
        <View
          style={{ padding: space.step, gap: space.near, flexDirection: 'row', flexWrap: 'wrap' }}
        >
          <Segments label="How much is drawn" options={levels} value={shown} onChange={setShown} />
          <Toggle label="See the air in it" value={seeing} onChange={setSeeing} />
        </View>
        <View
          onLayout={(event) => {
            onBox(event);
            onDrawing(event);
          }}
          role="group"
          aria-label="The rig from above"
          style={{ alignItems: wide ? 'flex-start' : 'center' }}
        >
          {bound && box.width > 0 ? (
            <Sideways wide={wide}>
              <PlanView
                bound={bound}
                frame={seeing ? bay.frame : null}
                unit={sayIn}
                circuit={null}
                chosen={chosen?.key ?? null}
                onChoose={choose}
                fit={scale * bound.plan.width}
              />
            </Sideways>
          ) : (
            <Waiting rows={5} />
          )}
        </View>
      </ScrollView>
      {last ? (
        <View role="status" style={{ padding: space.near, paddingHorizontal: space.step }}>
          <Txt as="bodyBold" tone="accent">{`${last.title}: ${last.said}`}</Txt>
        </View>
      ) : null}
      {chosen ? (
        <ScrollView
          style={{
            maxHeight: '55%',
            flexGrow: 0,
            borderTopWidth: 2,
            borderColor: palette.ink,
          }}
          contentContainerStyle={{ padding: space.step }}
        >
          <BayPart
            key={`${chosen.key} ${taps}`}
            bay={bay}
            setup={setup}
            symbol={chosen}
            seeing={seeing}
            onCheck={onCheck}
            teed={teed}
            onTee={onTee}
            onSay={onSay}
            said={said}
            onLeave={() => setChosen(null)}
          />
        </ScrollView>
      ) : null}
    </View>
  );
}
