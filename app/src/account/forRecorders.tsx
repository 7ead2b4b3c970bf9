import type { ComponentType } from 'react';
import { Notice } from '../ui/Notice';
import { Screen } from '../ui/Screen';
import { useMe } from './session';

/** A screen for those who may write; a viewer is told so before anything is filled in. */
export function forRecorders(title: string, Inner: ComponentType): ComponentType {
  return function ForRecorders() {
    const me = useMe();
    if (me.role !== 'viewer') return <Inner />;
    return (
      <Screen title={title}>
        <Notice
          title="You may look at this, not change it"
          text="A lead can make you a technician, under Shop."
        />
      </Screen>
    );
  };
}
