import { KPA_PER_PSI } from '../../units/pressure';
import { litresFromIn3 } from '../../units/volume';

/** Pascals in one psi. */
export const PA_PER_PSI = KPA_PER_PSI * 1000;

export const pa = (psi: number): number => psi * PA_PER_PSI;

export { litresFromIn3 };
