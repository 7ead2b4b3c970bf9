import { GAMMA } from './orifice';

/**
 * The share of a quick change of pressure that is heat, and is gone once the air is as warm as the tank:
 * (γ − 1)/γ, from T·p^(−(γ−1)/γ) = const [calc].
 */
export const HEAT_SHARE = (GAMMA - 1) / GAMMA;
