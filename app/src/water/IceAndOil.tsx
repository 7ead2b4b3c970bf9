import { View } from 'react-native';
import { space } from '../theme/space';
import { Caution } from '../ui/Caution';
import { LinkTo } from '../ui/LinkTo';
import { Txt } from '../ui/Txt';

/** Oil in the tanks: where it comes from. */
export function Oiled({ unitId }: { unitId: string }) {
  return (
    <View style={{ gap: space.hair }}>
      <Txt as="heading" heading={2}>
        Oil
      </Txt>
      <Txt as="small">
        Oil comes from the compressor: worn rings, a blocked intake, an oil return that is not free.
        Milky is oil and water together. It spoils the desiccant too: a new cartridge alone will not
        last.
      </Txt>
      <LinkTo to={`/unit/${unitId}/suspects`}>
        <Txt as="bodyBold" tone="accent">
          What is it? With the compressor among the suspects
        </Txt>
      </LinkTo>
    </View>
  );
}

/** Where ice is, and what to do about it: both schools, with their cautions. */
export function Iced({ found }: { found: boolean }) {
  return (
    <View style={{ gap: space.near }}>
      <Txt as="heading" heading={2}>
        {found ? 'Ice: where is it?' : 'If it freezes'}
      </Txt>
      <Txt as="small">
        Take the red line off at the trailer and push supply in. Air screaming at the open coupler:
        the tractor is clear up to there, and the ice is in the trailer. No air: it is in the
        tractor’s own lines.
      </Txt>
      <Caution
        lines={[
          'Hold the line fast before supply is pushed in: it whips. Eyes protected.',
          'Never a flame on a line, a valve or a tank.',
        ]}
      />
      <Txt as="smallBold">One school thaws it</Txt>
      <Txt as="small">
        Into the shop until it is warm, drain every tank, service the dryer. Nothing is put into the
        lines.
      </Txt>
      <Txt as="smallBold">The other uses brake-line de-icer</Txt>
      <Txt as="small">
        Raise the trailer’s red hose, fill until it spills, couple, push air through; once to three
        times. It washes out grease, swells seals and spoils desiccant: drain and service the dryer
        afterwards. Follow the maker.
      </Txt>
      <Txt as="small" tone="quiet">
        What was done goes into the visit as a note, and into the record.
      </Txt>
    </View>
  );
}
