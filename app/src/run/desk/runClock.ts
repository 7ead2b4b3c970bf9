import { createContext, useContext } from 'react';
import { deviceMs } from '../../wire/serverClock';

/** What a run goes by: the time of day, or that of a rig whose time runs faster. Milliseconds since 1970. */
export type Clock = () => number;

const timeOfDay: Clock = deviceMs;

export const RunClock = createContext<Clock>(timeOfDay);

/** The clock of the run that is shown. */
export const useRunClock = (): Clock => useContext(RunClock);
