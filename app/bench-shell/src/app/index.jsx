import { Button } from '@rneui/themed/dist/Button';
import Svg, { Rect } from 'react-native-svg';
import useSWR from 'swr';

/* An empty screen of the same stack: what a page costs before the product is in it. */
export default function Index() {
  const { data } = useSWR('/nothing', null);
  return (
    <>
      <Button title={String(data)} />
      <Svg width={10} height={10}>
        <Rect width={10} height={10} />
      </Svg>
    </>
  );
}
