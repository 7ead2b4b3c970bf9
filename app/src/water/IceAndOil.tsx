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

/** Where ice is, and the two ways to be rid of it, with their cautions. */
export function Iced({ found }: { found: boolean }) {
  return (
    <View style={{ gap: space.near }}>
      <Txt as="heading" heading={2}>
        {found ? 'Ice: where is it?' : 'If it freezes'}
      </Txt>
      <Txt as="small">
        First find which side of the coupling is blocked. Uncouple the supply line at the trailer
        and press trailer supply. Plenty of air: the trailer is blocked. Little or none: the
        blockage is in front of the coupler.
      </Txt>
      <Caution
        lines={[
          'Wear eye protection and keep hold of the loose line: it whips when supply is pressed.',
          'Never a flame on a line, a valve or a tank.',
        ]}
      />
      <Txt as="smallBold">Warm it</Txt>
      <Txt as="small">
        Stand it in a warm shop until nothing is frozen, drain every tank, then service the dryer.
      </Txt>
      <Txt as="smallBold">Air-brake de-icer, where the makers allow it</Txt>
      <Txt as="small">
        Put in what its label says at the trailer’s supply coupler, couple up and charge: the air
        carries it through. It strips grease, can swell seals and ruins desiccant, so drain every
        tank and service the dryer afterwards.
      </Txt>
      <Txt as="small" tone="quiet">
        What was done goes into the visit as a note, and into the record.
      </Txt>
    </View>
  );
}
