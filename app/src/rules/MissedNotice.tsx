import type { RuleSet, RuleSetDraft } from '@keen-bleed/contract';
import { figureTitles, hasOldStop, missedBy, stepMakerById } from '@keen-bleed/core';
import { Notice } from '../ui/Notice';

interface MissedNoticeProps {
  draft: RuleSetDraft;
  /** What it was copied from, as it ships now. */
  shipped: RuleSet;
  onTakeOver: () => void;
}

/** What a shop’s copy misses of the set it was copied from, taken over in one press. */
export function MissedNotice({ draft, shipped, onTakeOver }: MissedNoticeProps) {
  const { steps, limits } = missedBy(draft, shipped);
  if (steps.length === 0 && limits.length === 0) return null;
  const figures = [...new Set(limits.map(({ figure }) => figureTitles[figure].toLowerCase()))];
  const missing = [
    ...steps.map(({ stepId }) => stepMakerById(stepId)?.title ?? stepId),
    ...(figures.length > 0 ? [`limits of ${figures.join(', ')}`] : []),
  ];
  return (
    <Notice
      manner="trouble"
      title={hasOldStop(draft) ? 'This copy asks the old stop test' : 'This copy misses something'}
      text={`Missing: ${missing.join('; ')}.`}
      action={{ title: 'Take over', onPress: onTakeOver }}
    />
  );
}
