import { Pressable, View } from 'react-native';
import { space, target } from '../../theme/space';
import { usePalette } from '../../theme/usePalette';
import { Txt } from '../../ui/Txt';

interface NudgeRowProps {
  reading: string | null;
  /** What one press moves, in the gauge's unit. */
  move: string;
  canUndo: boolean;
  onNudge: (moves: number) => void;
  onUndo: () => void;
  onNote: () => void;
}

/** Undo, the reading with its two nudges, and a note, in one row over the pad. */
export function NudgeRow({ reading, move, canUndo, onNudge, onUndo, onNote }: NudgeRowProps) {
  const palette = usePalette();
  return (
    <View
      style={{
        flexDirection: 'row',
        alignItems: 'stretch',
        borderTopWidth: 1,
        borderTopColor: palette.rule,
        paddingHorizontal: space.hair,
      }}
    >
      <Key title="undo" label="Undo" disabled={!canUndo} onPress={onUndo} />
      <Key
        title={`− ${move}`}
        label={`Move the reading down by ${move}`}
        disabled={reading === null}
        onPress={() => onNudge(-1)}
        wide
      />
      <View style={{ width: 84, alignItems: 'center', justifyContent: 'center' }}>
        <Txt as="numberLarge" live="polite" testID="reading">
          {reading ?? ''}
        </Txt>
      </View>
      <Key
        title={`+ ${move}`}
        label={`Move the reading up by ${move}`}
        disabled={reading === null}
        onPress={() => onNudge(1)}
        wide
      />
      <Key title="note" label="Add a note" onPress={onNote} />
    </View>
  );
}

interface KeyProps {
  title: string;
  label: string;
  onPress: () => void;
  disabled?: boolean;
  wide?: boolean;
}

function Key({ title, label, onPress, disabled = false, wide = false }: KeyProps) {
  const palette = usePalette();
  return (
    <Pressable
      role="button"
      aria-label={label}
      disabled={disabled}
      onPress={onPress}
      style={({ pressed }) => ({
        minHeight: target.glove,
        flexGrow: 1,
        minWidth: wide ? 68 : target.glove,
        alignItems: 'center',
        justifyContent: 'center',
        backgroundColor: pressed ? palette.raised : 'transparent',
      })}
    >
      <Txt
        as={wide ? 'number' : 'body'}
        tone={disabled ? 'quiet' : 'ink'}
        style={disabled ? { opacity: 0.55 } : null}
      >
        {title}
      </Txt>
    </Pressable>
  );
}
