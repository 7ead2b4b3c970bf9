import * as Slider from '@radix-ui/react-slider';
import { stations, stationWords, type Station } from '@keen-bleed/core';
import { useState, type CSSProperties } from 'react';
import { Rail, type RailTone } from '../job/Rail';

interface RailSliderProps {
  station: Station;
  tone: RailTone;
  width: number;
  label: string;
  /** The marker was let go at another station: what it asks for is opened. */
  onMove: (station: Station) => void;
}

const UNSEEN: CSSProperties = { width: 44, height: 44, outlineOffset: -6, display: 'block' };

/**
 * A rail whose marker is dragged, or moved by the arrows. A job moves only by what is written in it: letting go opens
 * what the next station asks for, and the marker stands where it was until that is kept.
 */
export function RailSlider({ station, tone, width, label, onMove }: RailSliderProps) {
  const at = stations.indexOf(station);
  const [dragged, setDragged] = useState<number | null>(null);
  const shown = stations[dragged ?? at] ?? station;
  return (
    <div style={{ position: 'relative', width }}>
      <Rail station={shown} tone={tone} width={width} />
      <Slider.Root
        min={0}
        max={stations.length - 1}
        step={1}
        value={[dragged ?? at]}
        onValueChange={([value]) => setDragged(value ?? at)}
        onValueCommit={([value]) => {
          setDragged(null);
          const to = stations[value ?? at];
          if (to && to !== station) onMove(to);
        }}
        style={{
          position: 'absolute',
          inset: 0,
          top: -8,
          height: 44,
          display: 'flex',
          alignItems: 'center',
          touchAction: 'none',
          // The rail's ends leave room for half a marker, the slider's for half a thumb.
          left: -14,
          width: width + 28,
        }}
      >
        <Slider.Track style={{ flex: 1, height: 44 }} />
        <Slider.Thumb
          aria-label={label}
          aria-valuetext={stationWords[shown]}
          style={{ ...UNSEEN, cursor: 'grab' }}
        />
      </Slider.Root>
    </div>
  );
}
