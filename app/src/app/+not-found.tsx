import { usePathname } from 'expo-router';
import { LinkTo } from '../ui/LinkTo';
import { Screen } from '../ui/Screen';
import { Txt } from '../ui/Txt';

/** What is shown where an address leads to no page. */
export default function NotFound() {
  const path = usePathname();
  return (
    <Screen
      title="No such page"
      lead={`There is nothing at ${path}. What was recorded is where it was.`}
    >
      <LinkTo to="/">
        <Txt as="bodyBold" tone="accent">
          To the yard
        </Txt>
      </LinkTo>
      <LinkTo to="/work">
        <Txt as="bodyBold" tone="accent">
          To what is open
        </Txt>
      </LinkTo>
    </Screen>
  );
}
